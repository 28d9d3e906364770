/**
 * The application, in floors with one way down: {@code page} and {@code api}, {@code use}, {@code effect}, {@code sight},
 * {@code ground}; {@code store} below effect and sight. What decides stands in {@code mintshelf.core}.
 */
package mintshelf.app;

/** Benchmarks and load: figures as ratios against a peer in the same run. */
package mintshelf.bench;

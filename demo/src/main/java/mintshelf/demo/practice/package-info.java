/** The practice seat: changes a drawing of the desk in the browser, where no drafting program is at hand. */
package mintshelf.demo.practice;

/** What it takes to release something: the plan, its picture, its one button for each remedy. */
package mintshelf.app.page.release;

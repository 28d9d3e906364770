/** Pages that keep up by themselves: what moved since a page was made, told to those who may know of it. */
package mintshelf.app.use.live;

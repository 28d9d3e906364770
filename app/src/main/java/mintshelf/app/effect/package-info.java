/** Writers that work inside the transaction of an act: the record, who is told, versions, numbers, sheets, moves. They ask nobody whether they may; the use case has. */
package mintshelf.app.effect;

/** What the rules of a house and of the standards say of a sheet: findings with a place and a remedy. */
package mintshelf.core.drawing.check;

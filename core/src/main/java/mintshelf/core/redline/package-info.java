/** Redlines: what reviewers mark on a sheet, whom they mark it for, how it follows a sheet that changes. Never changes the sheet. */
package mintshelf.core.redline;

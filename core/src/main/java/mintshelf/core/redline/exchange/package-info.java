/** Remarks as others read and write them: the Web Annotation Data Model (W3C Recommendation, 23 February 2017). */
package mintshelf.core.redline.exchange;

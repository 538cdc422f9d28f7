/** Lists and calendars as files, each as its asker may see it. */
package mellowrota.server.files;

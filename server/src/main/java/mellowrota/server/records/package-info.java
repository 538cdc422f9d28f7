/** Records: kept, changed, and shown to whoever asks as far as they may see. */
package mellowrota.server.records;

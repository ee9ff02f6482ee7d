/** Every file format: CSV, JSON documents with their schemas, session files. */
module stativex.files {
    requires transitive stativex.core;
    requires transitive tools.jackson.databind;
    requires com.networknt.schema;
    requires de.siegmar.fastcsv;

    exports stativex.files;
}

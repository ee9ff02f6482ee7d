/** Every file format: CSV, JSON documents with their schemas, session files. */
module stativex.files {
    requires transitive stativex.core;
    requires transitive tools.jackson.databind;
    requires com.networknt.schema;
    requires de.siegmar.fastcsv;
    requires ical4j.core;
    requires java.sql;
    requires duckdb.jdbc;
    requires org.xerial.sqlitejdbc;
    requires org.apache.pdfbox;
    // pdfbox says no module's name, so nobody else would bring what it logs by
    requires org.apache.commons.logging;

    exports stativex.files;
    exports stativex.files.tape;
}

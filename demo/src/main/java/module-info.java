/** The seeded market simulator and the demo documents. All names are invented. */
module stativex.demo {
    requires transitive stativex.core;
    requires transitive stativex.files;

    exports stativex.demo;
}

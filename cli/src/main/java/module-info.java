/** The command line: the same work without a screen. */
module stativex.cli {
    requires stativex.core;
    requires stativex.files;
    requires stativex.demo;
    requires stativex.link;
    requires info.picocli;

    uses stativex.files.SearchElsewhere;

    opens stativex.cli to info.picocli;
}

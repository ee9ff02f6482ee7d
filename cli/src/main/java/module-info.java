/** The command line: the same work without a screen. */
module stativex.cli {
    requires stativex.core;
    requires stativex.files;
    requires stativex.demo;
    requires info.picocli;

    opens stativex.cli to info.picocli;
}

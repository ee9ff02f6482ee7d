/** The desktop application. */
module stativex.desk {
    requires stativex.core;
    requires stativex.files;
    requires stativex.demo;
    requires stativex.link;
    requires transitive javafx.graphics;
    requires javafx.controls;
    requires javafx.swing;
    requires java.desktop;
    requires atlantafx.base;
    requires info.picocli;

    exports stativex.desk;

    opens stativex.desk to info.picocli, javafx.graphics;
}

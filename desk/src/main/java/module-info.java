/** The desktop application. */
module stativex.desk {
    requires transitive stativex.core;
    requires transitive stativex.files;
    requires stativex.demo;
    requires transitive stativex.link;
    requires transitive javafx.graphics;
    requires javafx.controls;
    requires javafx.swing;
    requires java.desktop;
    requires atlantafx.base;
    requires org.fxmisc.richtext;
    requires reactfx;
    requires info.picocli;

    exports stativex.desk;

    opens stativex.desk to info.picocli;
}

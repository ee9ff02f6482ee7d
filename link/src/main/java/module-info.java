/** Feeds and brokers: the replay of a tape, the FIX 4.4 link, and the stand-in exchange. */
module stativex.link {
    requires transitive stativex.core;
    requires transitive stativex.files;
    requires quickfixj.core;

    exports stativex.link;
    exports stativex.link.fix;
}

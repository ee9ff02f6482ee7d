/** Feeds and brokers; so far the replay of a tape. */
module stativex.link {
    requires transitive stativex.core;
    requires transitive stativex.files;

    exports stativex.link;
}

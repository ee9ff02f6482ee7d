package stativex.order;

/** Whose orders, fills and positions they are. OCO never crosses owners. */
public sealed interface Owner {
    /** @param index of the strategy among those of its run */
    record Strategy(int index) implements Owner {}

    /** The person. */
    record Person() implements Owner {}

    /** The person, who is one. */
    Owner PERSON = new Person();
}

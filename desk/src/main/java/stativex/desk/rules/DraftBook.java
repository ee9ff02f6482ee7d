package stativex.desk.rules;

import java.util.ArrayDeque;
import java.util.Collection;
import java.util.Deque;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import stativex.files.AttemptBook;
import stativex.files.BadInput;
import stativex.files.StrategyDraft;
import stativex.files.StrategyFolder;

/**
 * The strategies that are worked on, one of them open. Every change is written to the folder at once; changes of the open
 * one can be taken back.
 */
final class DraftBook {
    private static final int STEPS_BACK = 200;

    private final StrategyFolder folder;
    private final Consumer<String> say;
    private final Map<String, StrategyDraft> drafts = new LinkedHashMap<>();
    private final Deque<StrategyDraft> before = new ArrayDeque<>();
    /** Names of the folder's strategies of other contracts. */
    private final Set<String> elsewhere = new HashSet<>();
    private String open;

    /**
     * @param contract whose strategies are worked on; those of others stay as they are
     * @param atHand strategies that are there anyway; the folder's of the same name stand in their place
     * @param say told what went wrong; empty text when nothing did
     */
    DraftBook(String contract, List<StrategyDraft> atHand, StrategyFolder folder, Consumer<String> say) {
        this.folder = folder;
        this.say = say;
        atHand.forEach(d -> drafts.put(d.name(), d));
        try {
            StrategyFolder.Found found = folder.list();
            for (StrategyDraft d : found.strategies()) {
                if (d.contract().equals(contract)) {
                    drafts.put(d.name(), d);
                } else {
                    elsewhere.add(d.name());
                }
            }
            say.accept(String.join("\n", found.unreadable()));
        } catch (BadInput e) {
            say.accept(e.getMessage());
        }
        if (drafts.isEmpty()) {
            StrategyDraft first = StrategyDraft.empty(free("New strategy"), contract);
            drafts.put(first.name(), first);
        }
        open = drafts.keySet().iterator().next();
    }

    private boolean taken(String name) {
        return drafts.containsKey(name) || elsewhere.contains(name);
    }

    /** The name, with a number behind it if it is taken. */
    private String free(String wanted) {
        String name = wanted;
        for (int i = 2; taken(name); i++) {
            name = wanted + " " + i;
        }
        return name;
    }

    Collection<StrategyDraft> all() {
        return drafts.values();
    }

    /** The open one. */
    StrategyDraft draft() {
        return drafts.get(open);
    }

    void open(String name) {
        open = name;
        before.clear();
    }

    /** Adds one and opens it; a name that is taken gets a number. */
    void add(StrategyDraft made) {
        String name = free(made.name());
        drafts.put(name, made.withName(name));
        open(name);
        keep();
    }

    /** Gives the open one another name. Returns whether it did. */
    boolean rename(String to) {
        if (to.isBlank() || to.equals(open)) {
            return false;
        }
        if (taken(to)) {
            say.accept("There is a strategy of that name already.");
            return false;
        }
        String from = open;
        StrategyDraft renamed = draft().withName(to);
        Map<String, StrategyDraft> all = new LinkedHashMap<>();
        drafts.forEach((name, d) -> all.put(name.equals(from) ? to : name, name.equals(from) ? renamed : d));
        drafts.clear();
        drafts.putAll(all);
        open(to);
        keep();
        forget(from);
        try {
            // what was tried under the old name was tried
            AttemptBook.own().addCopy(to, from);
        } catch (BadInput e) {
            say.accept(e.getMessage());
        }
        return true;
    }

    /** Takes the open one away and opens the first. Returns whether it did: the last one stays. */
    boolean remove() {
        if (drafts.size() == 1) {
            say.accept("The last strategy stays; begin another one first.");
            return false;
        }
        String name = open;
        drafts.remove(name);
        open(drafts.keySet().iterator().next());
        forget(name);
        return true;
    }

    private void forget(String name) {
        try {
            folder.remove(name);
        } catch (BadInput e) {
            say.accept(e.getMessage());
        }
    }

    /** Changes the open one. Returns whether anything changed. */
    boolean edit(UnaryOperator<StrategyDraft> change) {
        StrategyDraft now = draft();
        StrategyDraft after = change.apply(now);
        if (after.equals(now)) {
            return false;
        }
        before.push(now);
        while (before.size() > STEPS_BACK) {
            before.removeLast();
        }
        drafts.put(open, after);
        keep();
        return true;
    }

    /** Takes the last change of the open one back. Returns whether there was one. */
    boolean undo() {
        if (before.isEmpty()) {
            return false;
        }
        drafts.put(open, before.pop());
        keep();
        return true;
    }

    private void keep() {
        try {
            folder.keep(draft());
            say.accept("");
        } catch (BadInput e) {
            say.accept(e.getMessage());
        }
    }
}

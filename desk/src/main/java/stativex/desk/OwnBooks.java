package stativex.desk;

import java.util.List;
import stativex.account.Rulebook;
import stativex.demo.Demo;
import stativex.desk.limits.LimitsStage;
import stativex.files.DocumentFolder;
import stativex.files.Documents;

/** The person's rulebooks in the data folder, and invented ones to begin with. */
final class OwnBooks implements LimitsStage.Books {
    private final DocumentFolder<Rulebook> folder = DocumentFolder.rulebooks();

    /** Rulebooks of invented firms of unlike kinds. */
    static List<Documents.Read<Rulebook>> ready() {
        return Demo.rulebooks().stream().map(text -> Documents.rulebookDocument(text, "ready-made rulebook")).toList();
    }

    @Override
    public List<Documents.Read<Rulebook>> all() {
        return folder.list().documents();
    }

    @Override
    public void keep(Documents.Read<Rulebook> book) {
        folder.keep(book);
    }

    @Override
    public void remove(String name) {
        folder.remove(name);
    }
}

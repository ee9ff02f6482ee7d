package stativex.desk.trials;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.geometry.Point2D;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.desk.exits.PlanBook;
import stativex.desk.look.FilePicker;
import stativex.desk.look.Form;
import stativex.engine.Strategy;
import stativex.engine.StrategyProblems;
import stativex.files.AttemptBook;
import stativex.files.BadInput;
import stativex.files.Documents;
import stativex.files.ReportPage;
import stativex.files.ReportPdf;
import stativex.files.SealBook;
import stativex.files.SearchFolder;
import stativex.files.SearchSpec;
import stativex.files.SessionFile;
import stativex.files.StrategyDraft;
import stativex.files.Together;
import stativex.files.TrialFolder;
import stativex.files.tape.FurtherTapes;
import stativex.market.Contract;
import stativex.market.Side;
import stativex.market.Tape;
import stativex.search.Method;
import stativex.trial.Inputs;
import tools.jackson.databind.JsonNode;

/**
 * The Trials stage: the queue and the trials that were kept on the left, one trial's report or several side by side in the centre, its
 * figures on the right.
 */
public final class TrialsStage extends BorderPane {
    /** So many may stand side by side. */
    private static final int MOST = 6;

    /**
     * What it works on.
     *
     * @param documents contract and account that trials are made with; their strategies are those of {@code plans}
     * @param inputs tape, terms and days
     * @param tape how the tape is named
     * @param tapes finds a kept trial's tape again; {@code further} the tapes of other contracts
     * @param seal over dates of the contract that nobody looks at; empty: none
     * @param stored whether the tape is the store's own, so that dates of it can be sealed
     */
    public record Work(SessionFile.Set documents, Inputs inputs, String tape, PlanBook plans,
            SessionFile.TapeSource tapes, FurtherTapes further, Optional<SealBook.Seal> seal, boolean stored) {}

    /** What the window around the stage does for it. */
    public interface Window {
        /** Shows what led to an entry. @param time of the entry, nanoseconds */
        void show(long time, Side side);

        /** Dates were sealed: nothing of them may be shown any more, and the open strategy is tried. */
        void sealed();
    }

    private final Supplier<Work> work;
    private final Window window;
    private final FilePicker picker;
    private final TrialFolder folder = TrialFolder.own();
    private final SearchFolder searches = SearchFolder.own();
    private final SealPart seal;
    private final SearchPane search;
    private final TrialQueue queue;
    private final ComboBox<String> strategies = Form.choice("trials-strategy", "Strategy that is tried");
    private final TrialList list = new TrialList(new Acts());
    private final Label title = new Label();
    private final Label subtitle = new Label();
    private final Label said = new Label();
    private final ReportView report;
    private final TrialFacts facts = new TrialFacts();
    private final Button compare = new Button("Compare side by side");
    private final Set<Integer> ticked = new LinkedHashSet<>();
    private final Map<Integer, TrialQueue.Result> results = new HashMap<>();
    private List<TrialFolder.Kept> kept = List.of();
    private List<SearchFolder.Kept> found = List.of();
    private Optional<Integer> openSearch = Optional.empty();
    private Optional<Integer> open = Optional.empty();
    private Optional<TrialQueue.Job> last = Optional.empty();
    private int gathering;
    private boolean reading;

    /**
     * @param work what is at hand now
     * @param window around the stage
     * @param picker asks where a report goes
     */
    public TrialsStage(Supplier<Work> work, Window window, FilePicker picker) {
        this.work = work;
        this.window = window;
        this.picker = picker;
        this.seal = new SealPart(work);
        this.queue = new TrialQueue(folder, this::queueChanged);
        this.report = new ReportView(window::show);
        this.search = new SearchPane(this::use, this::join, () -> {
            found = searches.list();
            showList();
        }, seal);
        getStyleClass().add("limits-stage");
        setLeft(left());
        setCenter(centre());
        setRight(rightSide());
        read();
        facts.say(
                "A trial runs the open strategy over this tape, every print, with fees and slippage, and says what the"
                        + " result is worth before how good it looks.");
    }

    // ------------------------------------------------------------------ parts

    private Region left() {
        Label heading = new Label("Trials");
        heading.getStyleClass().add("heading");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(6, heading, gap, Form.muted("net, after costs"));
        head.setAlignment(Pos.BASELINE_LEFT);
        strategies.setMaxWidth(Double.MAX_VALUE);
        strategies.setOnAction(e -> {
            if (!reading && strategies.getValue() != null) {
                work.get().plans().open(strategies.getValue());
            }
        });
        HBox.setHgrow(strategies, Priority.ALWAYS);
        Button tryIt = new Button("Try it");
        tryIt.setId("trials-try");
        tryIt.setMinWidth(Region.USE_PREF_SIZE);
        tryIt.setTooltip(new Tooltip("Ctrl+Enter, in any stage"));
        tryIt.setOnAction(e -> tryIt());
        Button newSearch = new Button("New search …");
        newSearch.setId("trials-search");
        newSearch.setMaxWidth(Double.MAX_VALUE);
        newSearch.setOnAction(e -> newSearch());
        Button several = new Button("Several at once …");
        several.setId("trials-together");
        several.setMaxWidth(Double.MAX_VALUE);
        several.setOnAction(e -> together());
        ScrollPane scroll = scrolled(list);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        compare.setId("trials-compare");
        compare.setMaxWidth(Double.MAX_VALUE);
        compare.setOnAction(e -> compare());
        said.setId("trials-said");
        said.getStyleClass().add("problem");
        said.setWrapText(true);
        said.setMinHeight(Region.USE_PREF_SIZE);
        said.managedProperty().bind(said.textProperty().isNotEmpty());
        Label how = Form
                .wrapped("Trials run beside the window, at the lowest priority, and are kept with all that repeats"
                        + " them.");
        return side(236, head, new HBox(6, strategies, tryIt), said, scroll, compare, several,
                newSearch, how);
    }

    private static Region side(double width, Node... nodes) {
        VBox side = new VBox(8, nodes);
        side.getStyleClass().add("side-panel");
        side.setPrefWidth(width);
        side.setMinWidth(width);
        return side;
    }

    private static ScrollPane scrolled(Node content) {
        ScrollPane scroll = new ScrollPane(content);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("cards");
        return scroll;
    }

    private Region centre() {
        title.getStyleClass().add("title");
        title.setId("trials-title");
        title.setMinWidth(Region.USE_PREF_SIZE);
        subtitle.getStyleClass().add("muted");
        subtitle.setId("trials-subtitle");
        HBox head = new HBox(10, title, subtitle);
        head.setAlignment(Pos.CENTER_LEFT);
        head.getStyleClass().add("chart-head");
        title.setText("No trial");
        VBox.setVgrow(report, Priority.ALWAYS);
        VBox.setVgrow(search.centre(), Priority.ALWAYS);
        Form.show(search.centre(), false);
        VBox box = new VBox(head, report, search.centre());
        box.getStyleClass().add("centre");
        return box;
    }

    private Region rightSide() {
        Form.show(search.right(), false);
        VBox right = new VBox(8, facts, search.right());
        right.getStyleClass().add("plan-side");
        ScrollPane scroll = scrolled(right);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        return side(352, scroll);
    }

    // ------------------------------------------------------------------ the list

    /** What the rows of the list lead to. */
    private final class Acts implements TrialList.Acts {
        @Override
        public void open(TrialFolder.Kept one) {
            TrialsStage.this.open(one);
        }

        @Override
        public void open(SearchFolder.Kept one) {
            TrialsStage.this.open(one);
        }

        @Override
        public void tick(int number, boolean on) {
            if (!on) {
                ticked.remove(number);
            } else if (ticked.size() < MOST) {
                ticked.add(number);
            } else {
                said.setText("At most " + MOST + " trials stand side by side.");
            }
            showList();
        }

        @Override
        public void pause(TrialQueue.Job job, boolean on) {
            queue.pause(job, on);
        }

        @Override
        public void cancel(TrialQueue.Job job) {
            queue.cancel(job);
        }
    }

    /** The strategies and the kept trials may be others. */
    private void read() {
        reading = true;
        strategies.getItems().setAll(work.get().plans().all().stream().map(StrategyDraft::name).toList());
        strategies.setValue(work.get().plans().draft().name());
        reading = false;
        try {
            kept = folder.list();
            found = searches.list();
        } catch (BadInput e) {
            said.setText(e.getMessage());
        }
        showList();
    }

    /** Comes to the front. */
    public void focus() {
        read();
        strategies.requestFocus();
    }

    private void showList() {
        list.show(
                new TrialList.Shown(queue.jobs(), found, search.isBusy() ? openSearch : Optional.empty(), kept, ticked,
                        open, openSearch));
        compare.setDisable(ticked.size() < 2);
        compare.setText(ticked.size() < 2 ? "Tick two to compare" : "Compare " + ticked.size() + " side by side");
    }

    // ------------------------------------------------------------------ trying

    /** Puts a trial of the open strategy into the queue. */
    public void tryIt() {
        complete(draft -> {
            Optional<SealBook.Seal> offered = seal.offered();
            if (offered.isPresent()) {
                searching(false);
                facts.getChildren().setAll(
                        seal.question(offered.get(), window::sealed, this::tryIt, said::setText));
                return;
            }
            SessionFile.Set now = work.get().documents();
            enqueue(new SessionFile.Set(now.contract(), now.account(), List.of(draft.strategy()), now.others()));
        });
    }

    private void enqueue(SessionFile.Set documents) {
        Inputs of = work.get().inputs();
        Inputs inputs = documents.inputs(of.tape(), of.terms()).over(seal.fit(of.days(), documents.others()))
                .rolling(of.rolls());
        last = Optional.of(
                queue.add(new TrialQueue.Wanted(documents, inputs, work.get().tape(), seal.words(), true)));
    }

    /** The fields of a trial over several contracts, or of several strategies. */
    public void together() {
        complete(draft -> {
            searching(false);
            open = Optional.empty();
            title.setText("Several at once");
            subtitle.setText(draft.name());
            showList();
            List<Contract> known = new ArrayList<>(List.of(work.get().inputs().contract()));
            work.get().further().contracts().stream()
                    .filter(contract -> !contract.symbol().equals(known.getFirst().symbol())).forEach(known::add);
            facts.getChildren().setAll(new TogetherForm(draft, known, work.get().plans().all(),
                    work.get().inputs().account(), wanted -> {
                        if (seal.offered().isPresent()) {
                            throw new BadInput("expected a first trial of " + known.getFirst().symbol()
                                    + " alone, which offers to seal dates of it: press Try it");
                        }
                        enqueue(Together.documents(wanted, work.get().documents(), work.get().further()));
                    }));
        });
    }

    /** Does something with the open strategy, if there is nothing wrong with it. */
    private void complete(Consumer<StrategyDraft> act) {
        said.setText("");
        try {
            StrategyDraft draft = work.get().plans().draft();
            List<StrategyProblems.Problem> problems = draft.problems(work.get().inputs().contract(), List.of());
            if (problems.isEmpty()) {
                act.accept(draft);
            } else {
                said.setText(draft.name() + " is not complete: " + problems.getFirst().text());
            }
        } catch (BadInput | IllegalArgumentException e) {
            said.setText(e.getMessage());
        }
    }

    /** Tries the first so many strategies one after the other. */
    public void tryAll(int trials) {
        work.get().plans().all().stream().map(StrategyDraft::name).limit(trials).toList().forEach(name -> {
            work.get().plans().open(name);
            tryIt();
        });
        read();
    }

    private void queueChanged() {
        Optional<TrialQueue.Job> done = last.filter(job -> job.state == TrialQueue.State.DONE);
        if (done.isPresent()) {
            last = Optional.empty();
            TrialFolder.Kept made = done.get().kept.orElseThrow();
            results.put(made.number(), done.get().result.orElseThrow());
            kept = folder.list();
            open = Optional.of(made.number());
            show(made, "");
        } else if (queue.jobs().isEmpty()) {
            kept = folder.list();
        }
        showList();
    }

    // ------------------------------------------------------------------ one trial

    private void open(TrialFolder.Kept one) {
        searching(false);
        said.setText("");
        open = Optional.of(one.number());
        title.setText("Trial " + one.number());
        showList();
        if (seal.hides(one)) {
            subtitle.setText("");
            facts.say("");
            report.say("It was made before dates were sealed, and looks at them: open them for this version first.");
            return;
        }
        boolean known = results.containsKey(one.number());
        subtitle.setText(known ? "" : AGAIN);
        work(one, differences -> {
            if (isOpen(one)) {
                show(one, known
                        ? ""
                        : differences.isEmpty()
                                ? " · run again: the same, byte for byte"
                                : " · run again: " + differences.getFirst());
            }
        }, problem -> {
            subtitle.setText("");
            report.say(problem);
            facts.say(problem);
        });
    }

    private static final String AGAIN = "running again …";

    private boolean isOpen(TrialFolder.Kept one) {
        return open.equals(Optional.of(one.number()));
    }

    /** Works a kept trial again where it is not at hand. @param done gets what differs from what was kept */
    private void work(TrialFolder.Kept one, Consumer<List<String>> done, Consumer<String> failed) {
        if (results.containsKey(one.number())) {
            done.accept(List.of());
            return;
        }
        gathering++;
        queue.open(one, work.get().tapes(), opened -> {
            gathering--;
            results.put(one.number(), opened.result());
            done.accept(opened.differences());
        }, problem -> {
            gathering--;
            failed.accept(problem);
        });
    }

    /** Shows a trial, and what lies on the other side of its seal as soon as that is worked. */
    private void show(TrialFolder.Kept one, String again) {
        Optional<TrialFolder.Kept> partner = seal.partner(one, kept);
        shown(one, again, partner);
        partner.filter(other -> !results.containsKey(other.number())).ifPresent(other -> work(other, same -> {
            if (isOpen(one)) {
                shown(one, again, partner);
            }
        }, said::setText));
    }

    private void shown(TrialFolder.Kept one, String again, Optional<TrialFolder.Kept> partner) {
        searching(false);
        TrialQueue.Result result = results.get(one.number());
        Optional<TrialQueue.Result> other = partner.map(p -> results.get(p.number()));
        boolean unseen = seal.isUnseen(one);
        title.setText("Trial " + one.number());
        subtitle.setText(one.strategy() + " · " + result.documents().strategies().getFirst().value().plan().name()
                + " · " + one.contract() + " · " + TrialList.range(one) + again);
        report.show(new ReportView.Shown(one.strategy(), result, unseen ? other : Optional.of(result),
                unseen ? Optional.of(result) : other, seal.dates(one, result.run().inputs().contract().calendar())));
        facts.show(result, seal.words(), other.map(o -> new TrialFacts.Pair(unseen ? o : result, unseen ? result : o)));
        facts.getChildren().addAll(seal.beside(one, partner, () -> openSeal(result)), new BarsBeside(queue, result),
                new ForwardPart(queue, result),
                saver(one, result));
        showList();
    }

    /** Opens the sealed range for the version of a trial: counted, and run as a trial of its own. */
    private void openSeal(TrialQueue.Result of) {
        try {
            Inputs unseen = seal.open(of);
            last = Optional.of(queue.add(new TrialQueue.Wanted(of.documents(), unseen, work.get().tape(),
                    "opened: " + seal.words(), false)));
        } catch (BadInput | IllegalArgumentException e) {
            said.setText(e.getMessage());
        }
    }

    private Node saver(TrialFolder.Kept one, TrialQueue.Result result) {
        Button page = new Button("Save report …");
        page.setId("trial-save");
        page.setOnAction(e -> save(one, "html", file -> ReportPage.write(file, result.run(), result.report(),
                result.curve(), seal.words())));
        Button pdf = new Button("as PDF …");
        pdf.setId("trial-save-pdf");
        pdf.setOnAction(e -> save(one, "pdf", file -> ReportPdf.write(file, result.run(), result.report(),
                result.curve(), seal.words())));
        return new HBox(6, page, pdf);
    }

    private void save(TrialFolder.Kept one, String kind, Consumer<Path> write) {
        picker.save("Save the report", "trial-" + one.number() + "." + kind, kind).ifPresent(file -> {
            try {
                write.accept(file);
                said.setText("");
                subtitle.setText("saved: " + file.getFileName());
            } catch (BadInput problem) {
                said.setText(problem.getMessage());
            }
        });
    }

    // ------------------------------------------------------------------ searches

    private void searching(boolean on) {
        if (on) {
            open = Optional.empty();
        } else {
            openSearch = Optional.empty();
        }
        Form.show(report, !on);
        Form.show(search.centre(), on);
        Form.show(facts, !on);
        Form.show(search.right(), on);
    }

    /** The fields of a new search over the open strategy. */
    public void newSearch() {
        complete(draft -> {
            searching(true);
            title.setText("New search");
            subtitle.setText(draft.name());
            showList();
            search.fields(new NewSearch(draft.name(), draft.strategy()));
        });
    }

    /** A search over a strategy as it is now. */
    private final class NewSearch implements SearchPane.Maker {
        private final String name;
        private final Documents.Read<Strategy> strategy;

        NewSearch(String name, Documents.Read<Strategy> strategy) {
            this.name = name;
            this.strategy = strategy;
        }

        @Override
        public JsonNode strategy() {
            return strategy.document();
        }

        @Override
        public SearchSpec spec(List<SearchSpec.Setting> settings, Method method, SearchSpec.Ranked ranked) {
            Inputs inputs = work.get().inputs();
            return new SearchSpec(name, work.get().documents().contract(), work.get().documents().account(),
                    strategy.document(), new SearchSpec.Trial(work.get().tape(), inputs.terms(), inputs.days()),
                    settings, method, ranked);
        }

        @Override
        public SearchFolder.Kept keep(SearchSpec spec) {
            SearchFolder.Kept made = searches.add(spec);
            openSearch = Optional.of(made.number());
            title.setText("Search " + made.number());
            found = searches.list();
            return made;
        }

        @Override
        public Tape tape() {
            return work.get().inputs().tape();
        }
    }

    /** Starts the search whose fields are shown. @param least trades of a variant that counts */
    public void startSearch(int least) {
        ((TextField) search.right().lookup("#search-least")).setText(Integer.toString(least));
        ((Button) search.right().lookup("#search-start")).fire();
    }

    private void open(SearchFolder.Kept one) {
        searching(true);
        said.setText("");
        openSearch = Optional.of(one.number());
        title.setText("Search " + one.number());
        subtitle.setText(one.spec().name());
        showList();
        if (seal.over(one.spec()).filter(sealed -> one.spec().trial().days().last()
                .filter(day -> day.isBefore(sealed.from())).isEmpty()).isPresent()) {
            said.setText("Search " + one.number() + " was made before dates were sealed, and looks at them.");
            return;
        }
        try {
            search.begin(one, work.get().tapes().tape(one.spec().trial().tape(), one.spec().contract().value()));
        } catch (BadInput e) {
            said.setText(e.getMessage());
        }
    }

    /** A variant becomes the open strategy, as a change that can be taken back. */
    private void use(JsonNode variant) {
        work.get().plans().open(StrategyDraft.of(variant).name());
        work.get().plans().edit(draft -> StrategyDraft.of(variant));
        subtitle.setText("used: " + StrategyDraft.of(variant).name() + " has these settings now; Ctrl+Z in Rules takes"
                + " them back");
    }

    /** The best long and the best short variant, as a trial of two strategies on one account. */
    private void join(List<JsonNode> variants) {
        try {
            SessionFile.Set now = work.get().documents();
            String name = variants.getFirst().path("name").asString("");
            AttemptBook.own().addCopy(name + " long", name);
            AttemptBook.own().addCopy(name + " short", name);
            enqueue(new SessionFile.Set(now.contract(), now.account(), List.of(
                    Together.named(variants.get(0), " long"), Together.named(variants.get(1), " short")),
                    now.others()));
        } catch (BadInput | IllegalArgumentException e) {
            said.setText(e.getMessage());
        }
    }

    // ------------------------------------------------------------------ side by side

    /** Puts the newest trials side by side. */
    public void compareAll() {
        kept.stream().limit(MOST).forEach(one -> ticked.add(one.number()));
        compare();
    }

    private void compare() {
        List<TrialFolder.Kept> chosen = kept.stream().filter(one -> ticked.contains(one.number()))
                .sorted(Comparator.comparingInt(TrialFolder.Kept::number)).toList();
        searching(false);
        open = Optional.empty();
        title.setText("Side by side");
        subtitle.setText(AGAIN);
        showList();
        Optional<TrialFolder.Kept> hidden = chosen.stream().filter(seal::hides).findFirst();
        if (hidden.isPresent()) {
            subtitle.setText("");
            facts.say("");
            report.say("Trial " + hidden.get().number() + " looks at sealed dates: open them for its version first.");
            return;
        }
        gather(chosen, 0);
    }

    /** Works those that are not at hand, one after the other, then shows all. */
    private void gather(List<TrialFolder.Kept> chosen, int from) {
        if (from < chosen.size()) {
            work(chosen.get(from), same -> gather(chosen, from + 1), problem -> {
                said.setText("Trial " + chosen.get(from).number() + ": " + problem);
                subtitle.setText("");
            });
        } else if (open.isEmpty() && openSearch.isEmpty()) {
            show(chosen);
        }
    }

    private void show(List<TrialFolder.Kept> chosen) {
        List<TrialQueue.Result> all = chosen.stream().map(one -> results.get(one.number())).toList();
        subtitle.setText(chosen.size() + " trials on the same axes");
        List<TrialPicture.Line> lines = new ArrayList<>();
        for (int i = 0; i < chosen.size(); i++) {
            lines.add(new TrialPicture.Line(Integer.toString(chosen.get(i).number()), all.get(i).curve()));
        }
        report.compare(chosen.stream().map(one -> one.number() + " " + one.strategy()).toList(), lines, all);
        List<Node> words = new ArrayList<>();
        Label heading = new Label("What differs");
        heading.getStyleClass().add("heading");
        words.add(heading);
        for (int i = 1; i < chosen.size(); i++) {
            Label differs = new Label(Differences.words(chosen.getFirst().number(), all.getFirst(),
                    chosen.get(i).number(), all.get(i)));
            differs.setId("trials-difference-" + i);
            differs.setWrapText(true);
            differs.setMinHeight(Region.USE_PREF_SIZE);
            words.add(differs);
        }
        facts.getChildren().setAll(words);
        showList();
    }

    /** Whether something is being worked. */
    public boolean isBusy() {
        return gathering > 0 || queue.isBusy() || search.isBusy();
    }

    /** The picture of trades, for whoever clicks a mark. */
    public Point2D mark(int trade) {
        return report.mark(trade);
    }

    /** Ends what runs. */
    public void leave() {
        queue.close();
        search.close();
    }
}

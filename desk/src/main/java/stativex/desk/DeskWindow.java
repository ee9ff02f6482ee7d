package stativex.desk;

import java.nio.file.Path;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.account.Account;
import stativex.account.OwnLimits;
import stativex.demo.Demo;
import stativex.desk.chart.ChartLink;
import stativex.desk.chart.ChartModel;
import stativex.desk.exits.ExitsStage;
import stativex.desk.limits.LimitsStage;
import stativex.desk.live.LinkForm;
import stativex.desk.live.LivePart;
import stativex.desk.trials.TrialsStage;
import stativex.desk.look.FilePicker;
import stativex.desk.rules.RulesStage;
import stativex.desk.run.ReplayBar;
import stativex.desk.run.RunStage;
import stativex.desk.sound.Sounds;
import stativex.desk.tape.Shown;
import stativex.desk.tape.TapeStage;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.engine.Strategy;
import stativex.files.AccountLog;
import stativex.files.AccountSketch;
import stativex.files.BadInput;
import stativex.files.DeskState;
import stativex.files.DocumentFolder;
import stativex.files.Documents;
import stativex.trial.Days;
import stativex.market.Tape;
import stativex.market.Side;
import stativex.files.tape.TapeReference;
import stativex.files.tape.Progress;
import stativex.files.tape.ReceivedTape;
import stativex.files.LiveFolder;
import stativex.files.SealBook;
import stativex.files.SessionFile;
import stativex.files.StrategyDraft;
import stativex.files.StrategyFolder;
import stativex.files.tape.FurtherTapes;
import stativex.files.tape.TapeStore;
import stativex.link.LiveDay;
import stativex.link.Replay;
import stativex.link.RunView;
import stativex.market.Contract;
import stativex.market.Rolls;

/**
 * The window's content. Once a frame it takes the latest picture of the replay and shows it if it is a new one; the
 * engine never waits for it.
 */
public final class DeskWindow {
    /** Stages that there are, by the key that shows each beside the shortcut key. */
    private static final Map<KeyCode, Integer> STAGES = Map.of(KeyCode.DIGIT1, 1, KeyCode.DIGIT2, 2, KeyCode.DIGIT3, 3,
            KeyCode.DIGIT4, 4, KeyCode.DIGIT5, 5, KeyCode.DIGIT6, 6);

    private final BorderPane root = new BorderPane();
    private final FilePicker picker;
    private final ChartLink link = new ChartLink();
    private final TapeStage tape;
    private final StrategyFolder folder = StrategyFolder.own();
    private final DocumentFolder<Account> accounts = DocumentFolder.accounts();
    private final FurtherTapes further;
    private final Optional<Path> sessions;
    private final Label notice = new Label();
    private final HBox bar = new HBox(12, notice);
    private Optional<Workspace> workspace = Optional.empty();
    private final Sounds sounds = new Sounds();
    private TopBar topBar = new TopBar(Optional.empty(), this::send, this::stage, this::accountItems, sounds.menu());
    private Optional<RunStage> run = Optional.empty();
    private Optional<RulesStage> rules = Optional.empty();
    private Optional<ExitsStage> exits = Optional.empty();
    private Optional<LimitsStage> limits = Optional.empty();
    private Optional<TrialsStage> trials = Optional.empty();
    private Optional<LivePart> live = Optional.empty();
    private Optional<ReplayBar> replayBar = Optional.empty();
    private Optional<RunView> shown = Optional.empty();
    private int stage = 1;
    /** A switch that would end what is under way is asked once. */
    private Optional<String> asked = Optional.empty();
    private final AnimationTimer timer = new AnimationTimer() {
        @Override
        public void handle(long now) {
            refresh();
        }
    };

    /** Shows a workspace; {@link #start()} keeps it fresh. */
    public DeskWindow(Workspace workspace) {
        this(workspace, FilePicker.system());
    }

    /** @param picker asks for files */
    DeskWindow(Workspace workspace, FilePicker picker) {
        this(Optional.of(demonstration(workspace)), workspace.further(), workspace.own(), Optional.empty(), picker);
        work(workspace);
    }

    /**
     * A window on the person's own data, nothing of the demo in it until it is asked for.
     *
     * @param sessions folder that records sessions; empty records nothing
     */
    DeskWindow(Optional<Path> sessions, FilePicker picker) {
        this(Optional.empty(), new FurtherTapes(TapeStore.own(), List.of()), ZoneId.systemDefault(), sessions, picker);
        stage(1);
        resume(DeskState.read());
    }

    private DeskWindow(Optional<TapeStage.Demonstration> demo, FurtherTapes further, ZoneId own,
            Optional<Path> sessions,
            FilePicker picker) {
        this.picker = picker;
        this.further = further;
        this.sessions = sessions;
        tape = new TapeStage(TapeStore.own(), demo, own, this.picker, link, this::openInRun, this::openDemo);
        root.getStyleClass().add("desk");
        root.setTop(topBar);
        notice.setId("notice");
        notice.getStyleClass().add("problem");
        notice.setWrapText(true);
        Button dismiss = new Button("Close");
        dismiss.setId("notice-close");
        dismiss.setMinWidth(Region.USE_PREF_SIZE);
        dismiss.setOnAction(e -> say(""));
        bar.getChildren().add(dismiss);
        bar.getStyleClass().add("busy");
        bar.setAlignment(Pos.CENTER_LEFT);
        root.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.isShortcutDown() && !e.isAltDown() && !e.isShiftDown() && STAGES.containsKey(e.getCode())) {
                stage(STAGES.get(e.getCode()));
                e.consume();
            } else if (e.isShortcutDown() && e.getCode() == KeyCode.ENTER && workspace.isPresent()) {
                stage(5);
                trialsStage().tryIt();
                e.consume();
            }
        });
    }

    private static TapeStage.Demonstration demonstration(Workspace of) {
        Documents.Read<Contract> contract = of.documents().contract();
        return new TapeStage.Demonstration(Shown.made(of.tape(), contract.value(), of.inputs().tape()), contract);
    }

    /** Takes up what the person had. */
    private void resume(DeskState state) {
        state.tape().ifPresent(name -> {
            try {
                if (!resumed(name, state)) {
                    open(Shown.of(TapeStore.own().open(name)).over(state.days()), state.account());
                }
                stage(state.stage());
            } catch (BadInput | IllegalArgumentException e) {
                stage(1);
                tape.say(e.getMessage());
            }
        });
    }

    /** Goes on with the session that was begun last, if it was of this tape and account and the tape is not through. */
    private boolean resumed(String name, DeskState state) {
        try {
            Optional<SessionFile.Session> last = sessions.flatMap(SessionFile::last)
                    .map(file -> SessionFile.read(file, Demo::tape))
                    .filter(session -> session.tapeReference().equals(name) && session.unfinished()
                            && !session.commands().isEmpty() && session.inputs().days().equals(state.days())
                            && state.account().equals(Optional.of(session.inputs().account().name())));
            if (last.isEmpty()) {
                return false;
            }
            Workspace next = Workspace.resumed(last.get(), further, sessions);
            work(next, state.stage());
            say("The replay goes on where it was left, with its locks; every strategy is off.");
            return true;
        } catch (BadInput | IllegalArgumentException e) {
            // what cannot be gone on with is begun anew
            tape.say(e.getMessage());
            return false;
        }
    }

    /** Keeps what the window has, so that it begins with it again; the demo is not remembered. */
    private void remember() {
        workspace.filter(now -> !now.tape().equals(Demo.TAPE)).ifPresent(now -> {
            try {
                new DeskState(Optional.of(now.tape()), Optional.of(now.inputs().account().name()),
                        now.inputs().days(), stage).keep();
            } catch (BadInput e) {
                tape.say(e.getMessage());
            }
        });
    }

    /** The demo, made beside the window. */
    private void openDemo() {
        if (waitsForLive("the demo is opened")) {
            return;
        }
        tape.say("Preparing the demo: five trading days …");
        CompletableFuture.supplyAsync(() -> Workspace.demo(sessions))
                .whenComplete((made, problem) -> Platform.runLater(() -> {
                    if (problem != null) {
                        tape.say(String.valueOf(problem.getMessage()));
                        return;
                    }
                    tape.say("");
                    tape.demo(demonstration(made));
                    leave();
                    work(made);
                    made.toBeginning();
                }));
    }

    /** Takes a workspace into the Run stage. */
    private void work(Workspace next) {
        work(next, 6);
    }

    private void work(Workspace next, int then) {
        workspace = Optional.of(next);
        topBar = new TopBar(Optional.of(next.inputs().contract()), this::send, this::stage, this::accountItems,
                sounds.menu());
        sounds.begin();
        run.ifPresent(RunStage::leave);
        run = next.inputs().strategies().isEmpty()
                ? Optional.empty()
                : Optional.of(runStage(next));
        root.setTop(topBar);
        shown = Optional.empty();
        stage(then);
        refresh();
        remember();
    }

    private RunStage runStage(Workspace of) {
        ReplayBar bar = new ReplayBar(of.inputs().contract(), this::jump, this::askLive);
        replayBar = Optional.of(bar);
        return new RunStage(of.inputs(), of.own(), of.replay().latest(), link, this::send, bar, Optional.empty());
    }

    // ------------------------------------------------------------------ a live day

    /** Asks where the venue is. */
    void askLive() {
        run.ifPresent(stage -> {
            LinkForm form = new LinkForm(workspace().documents(), this::goLive, () -> stage.over(Optional.empty()));
            stage.over(Optional.of(form));
            form.first().requestFocus();
        });
    }

    /** Links to a venue; the replay stops where it stands. An earlier day may have to be gone through first: that is done beside the window. */
    CompletableFuture<Void> goLive(LiveDay.Setup setup) {
        workspace().replay().pause();
        return CompletableFuture.supplyAsync(() -> new LiveDay(setup, sentence -> {
            // the bar shows what was said, and the journal's log keeps it
        })).thenAcceptAsync(day -> shows(day, setup), Platform::runLater);
    }

    private void shows(LiveDay day, LiveDay.Setup setup) {
        Workspace now = workspace();
        for (int i = 0; i < setup.documents().strategies().size(); i++) {
            day.command(new Command.SetMode(i, Mode.WATCHING));
        }
        LivePart part = new LivePart(day.start(), now.own(), link, this::stage, this::endLive);
        live = Optional.of(part);
        run.ifPresent(RunStage::leave);
        run = Optional.of(part.stage());
        sounds.begin();
        shown = Optional.empty();
        stage(6);
        refresh();
    }

    /** Unlinks; what is open stays open at the broker. The replay is shown again where it stopped. */
    void endLive() {
        live.ifPresent(part -> {
            part.close();
            keepReceived(part.day());
            live = Optional.empty();
            run.ifPresent(RunStage::leave);
            run = Optional.of(runStage(workspace()));
            sounds.begin();
            shown = Optional.empty();
            stage(6);
            refresh();
        });
    }

    /** What was received is a tape from now on, made beside the window. */
    private void keepReceived(LiveDay day) {
        if (day.run().tape().count() == 0) {
            return;
        }
        Documents.Read<Contract> contract = day.setup().documents().contract();
        String name = contract.value().symbol() + " live " + LiveFolder.name(day.setup().journal());
        CompletableFuture
                .runAsync(() -> ReceivedTape.keep(TapeStore.own(), name, day.run().received(), contract, Progress.NONE))
                .whenComplete((done, problem) -> Platform.runLater(() -> {
                    say(problem == null
                            ? "What was received is kept as the tape " + name + "."
                            : String.valueOf(problem.getCause().getMessage()));
                    tape.refresh();
                }));
    }

    /** The live day, while there is one. */
    Optional<LivePart> live() {
        return live;
    }

    /** Says that something has to wait, while a live day is on. */
    private boolean waitsForLive(String what) {
        live.ifPresent(part -> say("A live day is on: end it in Run before " + what + "."));
        return live.isPresent();
    }

    /** Nothing that was made for the workspace before is shown any more. */
    private void leave() {
        workspace.ifPresent(Workspace::close);
        rules.ifPresent(RulesStage::leave);
        rules = Optional.empty();
        exits = Optional.empty();
        limits = Optional.empty();
        trials.ifPresent(TrialsStage::leave);
        trials = Optional.empty();
    }

    /** Shows a stage by its number; without a tape there is only the Tape stage. */
    public void stage(int number) {
        stage = workspace.isPresent() ? number : 1;
        topBar.stage(stage);
        if (stage == 1) {
            root.setCenter(tape);
            if (tape.pane().title().isEmpty()) {
                tape.select(workspace.map(Workspace::tape).orElse(""));
            }
        } else if (stage == 2) {
            root.setCenter(rulesStage());
            rulesStage().focus();
        } else if (stage == 3) {
            root.setCenter(exitsStage());
            exitsStage().focus();
        } else if (stage == 4) {
            root.setCenter(limitsStage());
            limitsStage().focus();
        } else if (stage == 5) {
            root.setCenter(trialsStage());
            trialsStage().focus();
        } else if (run.isPresent()) {
            root.setCenter(run.get());
            run.get().requestFocus();
        } else {
            root.setCenter(nothingToRun());
        }
        remember();
    }

    private Node nothingToRun() {
        Label words = new Label("No complete strategy trades " + workspace().inputs().contract().symbol()
                + " yet: make one in Rules, then take it to Run.");
        words.setId("nothing-to-run");
        Button go = new Button("Go to Rules");
        go.setId("go-to-rules");
        go.setOnAction(e -> stage(2));
        VBox box = new VBox(10, words, go);
        box.setAlignment(Pos.CENTER);
        return box;
    }

    /** The tape as far as it may be looked at with a strategy. */
    private static Tape looked(Workspace now) {
        return seal(now.tape(), now.inputs().contract()).isPresent()
                ? now.inputs().days().of(now.inputs().seen(), now.inputs().contract().calendar())
                : now.inputs().seen();
    }

    /** The Rules stage, made when first asked for. */
    RulesStage rulesStage() {
        if (rules.isEmpty()) {
            Workspace now = workspace();
            rules = Optional.of(new RulesStage(now.inputs().contract(), looked(now), now.further(),
                    now.documents().strategies().stream().map(s -> StrategyDraft.of(s.document())).toList(), folder,
                    link,
                    this::takeToRun, this::isTrading));
        }
        return rules.get();
    }

    /** The Exits stage, made when first asked for; it works on the strategies of the Rules stage. */
    ExitsStage exitsStage() {
        if (exits.isEmpty()) {
            Workspace now = workspace();
            exits = Optional.of(new ExitsStage(now.inputs().contract(), looked(now), now.inputs().account(),
                    now.further(), now.inputs().terms(),
                    new ExitsStage.Plans(rulesStage().plans(), new PlansOfRun(this::workspace))));
        }
        return exits.get();
    }

    /** The Limits stage, made when first asked for; it works on the strategies of the Rules stage and on the account. */
    LimitsStage limitsStage() {
        if (limits.isEmpty()) {
            Workspace now = workspace();
            limits = Optional
                    .of(new LimitsStage(new LimitsStage.Work(now.inputs(), now.documents().account(), now.own(),
                            new CurrentPlans(() -> rulesStage().plans()), new OwnBooks(), OwnBooks.ready(),
                            now.firstDay(), () -> SealBook.own()
                                    .words(seal(workspace().tape(), workspace().inputs().contract()))),
                            picker,
                            this::limited));
        }
        return limits.get();
    }

    /** The Trials stage, made when first asked for; it tries the strategies of the Rules stage. */
    TrialsStage trialsStage() {
        if (trials.isEmpty()) {
            trials = Optional.of(new TrialsStage(() -> new TrialsStage.Work(workspace().documents(),
                    workspace().inputs(), workspace().tape(), new CurrentPlans(() -> rulesStage().plans()),
                    Demo::tape, workspace().further(), seal(workspace().tape(), workspace().inputs().contract()),
                    TapeReference.isStored(TapeStore.own(), workspace().tape())), new TrialsStage.Window() {
                        @Override
                        public void show(long time, Side side) {
                            stage(2);
                            rulesStage().lookAt(time, side);
                        }

                        @Override
                        public void sealed() {
                            DeskWindow.this.sealed();
                        }
                    }, picker));
        }
        return trials.get();
    }

    /** The account with other limits, or another rulebook: kept, written down where its book changes, and traded with. */
    private void limited(Documents.Read<Account> account) {
        Account before = workspace().inputs().account();
        accounts.keep(account);
        if (!before.rulebook().name().equals(account.value().rulebook().name())) {
            AccountLog.bookChanged(before, account.value().rulebook().name());
        }
        LimitsStage shownNow = limitsStage();
        if (isTrading() && onlyOwnLimits(before, account.value())) {
            workspace().limits(account);
            shownNow.account(account);
            shownNow.say("Tighter limits hold at once, looser ones from the next trading day on.");
            return;
        }
        switchTo(account, 4);
        if (workspace().inputs().account().equals(account.value())) {
            limits = Optional.of(shownNow);
            root.setCenter(shownNow);
            shownNow.account(account);
        }
    }

    /** Whether an account differs in nothing but what may change while it is traded. */
    private static boolean onlyOwnLimits(Account before, Account after) {
        OwnLimits limits = after.own();
        return before.with(limits).equals(after) && limits.quietTimes().equals(before.own().quietTimes());
    }

    /** Whether a strategy is engaged in the replay, or has a position. */
    private boolean isTrading() {
        return workspace.isPresent() && workspace.get().replay().latest().snapshot().strategies().stream()
                .anyMatch(s -> s.mode() == Mode.ENGAGED || s.position().isPresent());
    }

    /** Replays the tape at hand with a strategy first. */
    private void takeToRun(StrategyDraft draft) {
        if (waitsForLive("another strategy runs")) {
            return;
        }
        try {
            Documents.Read<Strategy> strategy = draft.strategy();
            Workspace next = workspace().withFirst(strategy);
            folder.keepVersion(draft, strategy.value().version());
            workspace().close();
            work(next);
            next.toBeginning();
        } catch (IllegalArgumentException | BadInput e) {
            rulesStage().say(e.getMessage());
        }
    }

    // ------------------------------------------------------------------ accounts

    private List<MenuItem> accountItems() {
        List<MenuItem> items = new ArrayList<>();
        if (workspace.isEmpty()) {
            return items;
        }
        for (Documents.Read<Account> account : accounts.list().documents()) {
            MenuItem item = new MenuItem(account.value().name());
            item.setOnAction(e -> switchTo(account));
            items.add(item);
        }
        if (!items.isEmpty()) {
            items.add(new SeparatorMenuItem());
        }
        Account now = workspace().inputs().account();
        AccountSketch sketch = AccountSketch.of(workspace().documents().account());
        items.add(item("account-change", "Change " + now.name() + "…",
                () -> editAccount(sketch, "Account " + now.name())));
        items.add(item("account-copy", "Copy " + now.name() + "…",
                () -> editAccount(sketch.withName(now.name() + " copy"), "A copy of " + now.name())));
        items.add(item("account-new", "New account…", () -> editAccount(AccountSketch.practice(
                workspace().inputs().contract().currency(), workspace().inputs().contract().symbol()).withName(""),
                "A new account")));
        return items;
    }

    private static MenuItem item(String id, String words, Runnable act) {
        MenuItem item = new MenuItem(words);
        item.setId(id);
        item.setOnAction(e -> act.run());
        return item;
    }

    private void editAccount(AccountSketch sketch, String title) {
        root.setCenter(new AccountPanel(sketch, title, made -> {
            stage(stage);
            made.ifPresent(account -> {
                try {
                    accounts.keep(account);
                    switchTo(account);
                } catch (BadInput e) {
                    tape.say(e.getMessage());
                }
            });
        }));
    }

    /** Trades with another account from the beginning; asks once when something is under way. */
    private void switchTo(Documents.Read<Account> account) {
        switchTo(account, 6);
    }

    /** @param then the stage that is shown */
    private void switchTo(Documents.Read<Account> account, int then) {
        if (waitsForLive("another account is traded")) {
            return;
        }
        if (isTrading() && !asked.equals(Optional.of(account.value().name()))) {
            asked = Optional.of(account.value().name());
            say("Something is under way: choose " + account.value().name()
                    + " again, and the replay starts anew with it.");
            return;
        }
        asked = Optional.empty();
        say("");
        try {
            Workspace next = workspace().with(account);
            leave();
            work(next, then);
            next.toBeginning();
        } catch (IllegalArgumentException e) {
            say(e.getMessage());
        }
    }

    /** The Tape stage. */
    TapeStage tapeStage() {
        return tape;
    }

    /** Replays a tape with the strategies of its contract, from its last trading day on. */
    private void openInRun(Shown chosen) {
        if (waitsForLive("another tape is opened")) {
            return;
        }
        try {
            open(chosen, Optional.empty());
        } catch (IllegalArgumentException | BadInput e) {
            tape.say(e.getMessage());
        }
    }

    /** The seal over what a tape is opened by; empty where it is not of the store, or its contract has none. */
    private static Optional<SealBook.Seal> seal(String reference, Contract contract) {
        return TapeReference.isStored(TapeStore.own(), reference)
                ? SealBook.own().of(contract.symbol())
                : Optional.empty();
    }

    /** Nobody looks at sealed dates: they are not opened. */
    private static Shown unsealed(Shown chosen) {
        return seal(chosen.reference(), chosen.contract()).map(seal -> chosen.over(seal.fit(chosen.days())))
                .orElse(chosen);
    }

    /** Dates were sealed: the tape is opened anew without them, and the trial made that was asked for. */
    private void sealed() {
        Workspace now = workspace();
        Days fit = seal(now.tape(), now.inputs().contract()).map(seal -> seal.fit(now.inputs().days()))
                .orElse(now.inputs().days());
        Workspace next = now.on(now.tape(), now.documents().contract(), now.inputs().tape(), now.inputs().rolls(), fit);
        leave();
        work(next, 5);
        next.toBeginning();
        trialsStage().tryIt();
    }

    private void open(Shown asked, Optional<String> wanted) {
        Shown chosen = unsealed(asked);
        Documents.Read<Contract> contract = contract(chosen);
        // a join is traded over its rolls
        Rolls rolls = chosen.join().map(Rolls::of).orElse(Rolls.NONE);
        Workspace next = workspace.isPresent() && wanted.isEmpty()
                && fits(workspace.get().inputs().account(), contract.value())
                        ? workspace.get().on(chosen.reference(), contract, chosen.tape(), rolls, chosen.days())
                        : Workspace.own(chosen.reference(), contract, chosen.tape(), rolls, chosen.days(),
                                account(contract.value(), wanted),
                                further, sessions);
        leave();
        work(next);
        next.toBeginning();
    }

    /** The contract as the person keeps it now, else as the tape has it. */
    private Documents.Read<Contract> contract(Shown chosen) {
        return DocumentFolder.contracts().find(chosen.contract().symbol())
                .filter(own -> own.value().tickSize().compareTo(chosen.contract().tickSize()) == 0)
                // the tape knows which of its months it is
                .map(own -> own.value().listing().months().isEmpty() || chosen.contract().lastTradingDay().isEmpty()
                        ? own
                        : Documents.month(own, chosen.contract().lastTradingDay().get()))
                .or(chosen::document)
                .orElseGet(() -> workspace().documents().contract());
    }

    private static boolean fits(Account account, Contract contract) {
        return account.fees().containsKey(contract.symbol()) && account.currency().equals(contract.currency());
    }

    /** The account that is wanted; else one that states a fee for the contract; else one to begin with, without cost. */
    private Documents.Read<Account> account(Contract contract, Optional<String> wanted) {
        List<Documents.Read<Account>> all = accounts.list().documents();
        return all.stream().filter(one -> wanted.equals(Optional.of(one.value().name()))).findFirst()
                .or(() -> all.stream().filter(one -> fits(one.value(), contract)).findFirst())
                .orElseGet(() -> AccountSketch.practice(contract.currency(), contract.symbol()).read());
    }

    /**
     * What is replayed now.
     *
     * @throws java.util.NoSuchElementException when there is no tape yet
     */
    public Workspace workspace() {
        return workspace.orElseThrow();
    }

    /** Whether a tape is replayed. */
    boolean isWorking() {
        return workspace.isPresent();
    }

    /** Says something to the person, whatever stage is shown. */
    void say(String words) {
        notice.setText(words);
        root.setBottom(words.isEmpty() ? null : bar);
    }

    public Parent root() {
        return root;
    }

    public void start() {
        timer.start();
    }

    public void stop() {
        timer.stop();
    }

    /** Shows the latest picture if it is a new one. Returns whether it was. */
    public boolean refresh() {
        if (workspace.isEmpty()) {
            return false;
        }
        if (live.isPresent()) {
            return refresh(live.get());
        }
        Replay.View view = workspace.get().replay().latest();
        if (shown.isPresent() && shown.get() == view) {
            return false;
        }
        shown = Optional.of(view);
        topBar.show(view, "Replay", "sim");
        sounds.hear(view.snapshot(), view.jumpTo().isPresent(), 0, System.nanoTime());
        replayBar.ifPresent(bar -> bar.show(workspace.get().replay(), view));
        run.ifPresent(stage -> stage.show(view));
        tape.running(workspace.get().tape(), ChartModel.running(view.snapshot()));
        if (stage == 3) {
            exits.ifPresent(ExitsStage::runs);
        }
        return true;
    }

    private boolean refresh(LivePart part) {
        LiveDay.View view = part.day().latest();
        if (shown.isPresent() && shown.get() == view) {
            return false;
        }
        shown = Optional.of(view);
        topBar.show(view, "Live", part.sends() ? "live" : "orders held back");
        sounds.hear(view.snapshot(), false, view.standing().alarms().size(), System.nanoTime());
        part.show(view);
        return true;
    }

    /** The Run stage, while something runs. */
    RunStage runStage() {
        return run.orElseThrow();
    }

    private void send(Command command) {
        live.ifPresentOrElse(part -> part.send(command), () -> workspace().replay().command(command));
    }

    private void jump(long time) {
        if (time < workspace().replay().latest().clock()) {
            workspace().restart();
        }
        workspace().replay().jumpTo(time);
    }
}

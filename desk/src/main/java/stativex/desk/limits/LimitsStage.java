package stativex.desk.limits;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import stativex.account.Account;
import stativex.account.QuietTimes;
import stativex.account.Rulebook;
import stativex.desk.exits.PlanBook;
import stativex.desk.look.FilePicker;
import stativex.desk.look.Form;
import stativex.desk.look.Format;
import stativex.exit.Distance;
import stativex.files.BadInput;
import stativex.files.BookSketch;
import stativex.files.Documents;
import stativex.files.OwnLines;
import stativex.files.OwnOrders;
import stativex.files.QuietSketch;
import stativex.files.StrategyDraft;
import stativex.files.StrategySetup;
import stativex.interlock.SessionWindow;
import stativex.market.Contract;
import stativex.market.Money;
import stativex.market.Side;
import stativex.market.TapeTime;
import stativex.trial.Inputs;

/**
 * The Limits stage: hours, quiet times, own limits and rulebooks on the left; the trading day, the account against its lines and the odds
 * in the middle; fields and rules of what is selected on the right.
 */
public final class LimitsStage extends BorderPane {
    private static final KeyCombination UNDO = new KeyCodeCombination(KeyCode.Z, KeyCombination.SHORTCUT_DOWN);

    /**
     * What the stage works on.
     *
     * @param inputs tape, contract, terms
     * @param account as its document states it
     * @param own zone of the person
     * @param plans the strategies
     * @param books rulebooks of the person's own, which may be changed
     * @param ready rulebooks to begin with
     * @param day trading day that is shown first
     * @param seal what is said of unseen dates
     */
    public record Work(Inputs inputs, Documents.Read<Account> account, ZoneId own, PlanBook plans, Books books,
            List<Documents.Read<Rulebook>> ready, LocalDate day, Supplier<String> seal) {}

    /** The person's rulebooks. */
    public interface Books {
        List<Documents.Read<Rulebook>> all();

        /** Keeps one; one of its name gives way. */
        void keep(Documents.Read<Rulebook> book);

        void remove(String name);
    }

    private enum Kind {
        DAY, QUIET, OWN, BOOK
    }

    /** A line of the list. @param title of a book its name */
    private record Entry(Kind kind, String title, String words) {}

    private final Work work;
    private final Contract contract;
    private final Consumer<Documents.Read<Account>> keep;
    private Documents.Read<Account> account;
    private final PastDaysPanel past;
    private final ListView<Entry> list = new ListView<>();
    private final DayPanel day;
    private final VBox right = new VBox(8);
    private final Label heading = new Label();
    private final VBox thumb = new VBox(2);
    private final Region first = rule();
    private final Region second = rule();
    private final Region third = rule();
    private final WindowFields windowFields;
    private final QuietForm quietForm;
    private final OwnLinesForm ofAccount;
    private final OwnLinesForm ofContract;
    private final OwnLinesForm ofStrategy;
    private final OwnOrdersForm ofOrders;
    private final RuleCards cards = new RuleCards();
    private final PricesView prices = new PricesView();
    private final BookEditor editor;
    private final VBox asked = new VBox(6);
    private final Label said = new Label();
    private List<SessionWindow> windows = List.of();
    private boolean showing;
    private boolean editing;

    /** @param keep takes an account that was changed: from now on it is traded with */
    public LimitsStage(Work work, FilePicker picker, Consumer<Documents.Read<Account>> keep) {
        this.work = work;
        this.contract = work.inputs().contract();
        this.keep = keep;
        this.account = work.account();
        this.past = new PastDaysPanel(work.inputs(), work.seal(), name -> {
            work.plans().open(name);
            opened();
        }, this::known);
        this.day = new DayPanel(contract, work.own(), work.day(), new DayPanel.Hours() {
            @Override
            public void keep(List<SessionWindow> next) {
                keepWindows(next);
            }

            @Override
            public void picked() {
                open("Trading day");
            }
        });
        this.windowFields = new WindowFields(contract.calendar().zone(), this::keepWindows);
        this.quietForm = new QuietForm(picker, quiet -> take(OwnLines.with(account, quiet)));
        this.ofAccount = new OwnLinesForm(OwnLines.Of.ACCOUNT, limits -> take(OwnLines.with(account, limits)));
        this.ofContract = new OwnLinesForm(OwnLines.Of.CONTRACT,
                limits -> take(OwnLines.with(account, contract.symbol(), limits)));
        this.ofStrategy = new OwnLinesForm(OwnLines.Of.STRATEGY, limits -> {
            work.plans().edit(draft -> OwnLines.with(draft, limits));
            opened();
        });
        this.ofOrders = new OwnOrdersForm(manners -> take(OwnOrders.with(account, manners)));
        this.editor = new BookEditor(this::bookChanged);
        getStyleClass().add("limits-stage");
        setLeft(left());
        setCenter(centre());
        setRight(rightSide());
        addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (UNDO.match(e) && !(getScene().getFocusOwner() instanceof TextInputControl)) {
                work.plans().undo();
                opened();
                e.consume();
            }
        });
    }

    // ------------------------------------------------------------------ parts

    private Region left() {
        Label limits = new Label("Limits");
        limits.getStyleClass().add("heading");
        list.setId("limits-list");
        list.setAccessibleText("Hours, quiet times, own limits and rulebooks");
        list.setCellFactory(view -> new Cell());
        list.getSelectionModel().selectedItemProperty().addListener((o, before, now) -> {
            if (now != null && !showing) {
                editing = false;
                showRight();
                showDay();
                if (before == null || before.kind() != now.kind() || !before.title().equals(now.title())) {
                    judge();
                }
            }
        });
        VBox.setVgrow(list, Priority.ALWAYS);
        MenuButton more = new MenuButton("+ rulebook");
        more.setId("limits-new-book");
        more.getStyleClass().add("small");
        more.getItems().add(item("book-new-empty", "Empty", () -> newBook(BookSketch.empty(free("My rulebook")))));
        work.ready().forEach(ready -> more.getItems().add(item("book-new-" + plain(ready.value().name()),
                "Like " + ready.value().name(),
                () -> newBook(BookSketch.of(ready.document()).named(free(ready.value().name() + " copy"))))));
        VBox left = new VBox(8, limits, list, more);
        left.getStyleClass().add("side-panel");
        left.setPrefWidth(222);
        left.setMinWidth(222);
        return left;
    }

    private static String plain(String name) {
        return name.toLowerCase(java.util.Locale.ROOT).replaceAll("[^a-z0-9]+", "-");
    }

    private static MenuItem item(String id, String words, Runnable act) {
        MenuItem item = new MenuItem(words);
        item.setId(id);
        item.setOnAction(e -> act.run());
        return item;
    }

    private static Button small(String id, String words, String help, Runnable act) {
        Button button = new Button(words);
        button.setId(id);
        button.getStyleClass().add("small");
        button.setMinWidth(USE_PREF_SIZE);
        button.setTooltip(new javafx.scene.control.Tooltip(help));
        button.setAccessibleText(help);
        button.setOnAction(e -> act.run());
        return button;
    }

    private Region centre() {
        VBox.setVgrow(past, Priority.ALWAYS);
        VBox box = new VBox(day, rule(), past);
        box.getStyleClass().add("centre");
        return box;
    }

    private static Region rule() {
        Region rule = new Region();
        rule.getStyleClass().add("rule");
        return rule;
    }

    private Region rightSide() {
        said.setId("limits-said");
        said.getStyleClass().add("problem");
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        said.managedProperty().bind(said.textProperty().isNotEmpty());
        heading.getStyleClass().add("heading");
        right.getStyleClass().add("plan-side");
        ScrollPane scroll = new ScrollPane(right);
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.getStyleClass().add("cards");
        VBox.setVgrow(scroll, Priority.ALWAYS);
        VBox side = new VBox(6, scroll);
        side.getStyleClass().add("side-panel");
        side.setPrefWidth(344);
        side.setMinWidth(344);
        return side;
    }

    // ------------------------------------------------------------------ what is shown

    /** The stage is shown: strategies may have been changed elsewhere. */
    public void focus() {
        opened();
        day.focusPicture();
    }

    /** The account is another one from now on. */
    public void account(Documents.Read<Account> now) {
        account = now;
        opened();
    }

    /** Says something beside the fields. */
    public void say(String words) {
        said.setText(words);
    }

    /** The open strategy, the account or the books may be others. */
    private void opened() {
        showing = true;
        StrategyDraft draft = work.plans().draft();
        past.strategies(work.plans().all().stream().map(StrategyDraft::name).toList(), draft.name());
        windows = StrategySetup.windows(draft);
        Entry before = list.getSelectionModel().getSelectedItem();
        List<Entry> entries = entries();
        list.getItems().setAll(entries);
        Entry now = entries.stream()
                .filter(e -> before != null && e.kind() == before.kind()
                        && (e.kind() != Kind.BOOK || e.title().equals(before.title())))
                .findFirst().orElse(entries.get(3));
        list.getSelectionModel().select(now);
        showing = false;
        showDay();
        showRight();
        judge();
    }

    private List<Entry> entries() {
        List<Entry> entries = new ArrayList<>();
        Account of = account.value();
        entries.add(new Entry(Kind.DAY, "Trading day", (windows.isEmpty()
                ? "every hour"
                : windows.size() + (windows.size() == 1 ? " window" : " windows"))
                + of.rulebook().of(Rulebook.FlatBy.class).findFirst().map(by -> " · flat by " + by.time()).orElse("")));
        QuietTimes quiet = of.own().quietTimes();
        entries.add(new Entry(Kind.QUIET, "Quiet times",
                quiet.times().isEmpty() ? "none" : quiet.times().size() + " around releases"));
        entries.add(new Entry(Kind.OWN, "Own limits", own(of)));
        entries.add(new Entry(Kind.BOOK, of.rulebook().name(), "the account's rulebook"));
        for (Documents.Read<Rulebook> book : books()) {
            if (!book.value().name().equals(of.rulebook().name())) {
                entries.add(new Entry(Kind.BOOK, book.value().name(),
                        book.value().rules().size() + (book.value().rules().size() == 1 ? " rule" : " rules")));
            }
        }
        return entries;
    }

    private static String own(Account of) {
        List<String> words = new ArrayList<>();
        of.own().dayLoss().ifPresent(loss -> words.add(Format.signedMoney(-loss.amount())));
        of.own().dayProfit().ifPresent(profit -> words.add(Format.signedMoney(profit)));
        String line = String.join(" / ", words);
        String trades = of.own().tradesADay().map(n -> n + " trades").orElse("");
        return line.isEmpty() && trades.isEmpty()
                ? "none"
                : line + (line.isEmpty() || trades.isEmpty() ? "" : " · ") + trades;
    }

    private List<Documents.Read<Rulebook>> books() {
        List<Documents.Read<Rulebook>> all = new ArrayList<>(work.books().all());
        work.ready().stream().filter(one -> all.stream().noneMatch(b -> b.value().name().equals(one.value().name())))
                .forEach(all::add);
        return all;
    }

    private Documents.Read<Rulebook> accountsBook() {
        return new Documents.Read<>(account.value().rulebook(), account.document().path("rulebook"));
    }

    /** The book that is selected, else the account's. */
    private Documents.Read<Rulebook> book() {
        Entry entry = list.getSelectionModel().getSelectedItem();
        if (entry == null || entry.kind() != Kind.BOOK || entry.title().equals(account.value().rulebook().name())) {
            return accountsBook();
        }
        return books().stream().filter(one -> one.value().name().equals(entry.title())).findFirst()
                .orElseGet(this::accountsBook);
    }

    private void showDay() {
        day.show(work.plans().draft().name(), windows, judged());
    }

    private void keepWindows(List<SessionWindow> next) {
        windows = List.copyOf(next);
        work.plans().edit(draft -> StrategySetup.withWindows(draft, windows));
        windowFields.show(windows);
        showDay();
        refreshList();
        judge();
    }

    private void refreshList() {
        showing = true;
        Entry before = list.getSelectionModel().getSelectedItem();
        List<Entry> entries = entries();
        for (int i = 0; i < entries.size() && i < list.getItems().size(); i++) {
            if (!list.getItems().get(i).equals(entries.get(i))) {
                list.getItems().set(i, entries.get(i));
            }
        }
        entries.stream().filter(e -> before != null && e.kind() == before.kind() && e.title().equals(before.title()))
                .findFirst().ifPresent(list.getSelectionModel()::select);
        showing = false;
    }

    private void showRight() {
        Entry entry = list.getSelectionModel().getSelectedItem();
        if (entry == null) {
            return;
        }
        said.setText("");
        asked.getChildren().clear();
        List<Node> nodes = new ArrayList<>();
        heading.setText(switch (entry.kind()) {
            case DAY -> "Session windows of " + work.plans().draft().name();
            case QUIET -> "Quiet times";
            case OWN -> "Own limits";
            case BOOK -> "Rulebook";
        });
        nodes.add(heading);
        switch (entry.kind()) {
            case DAY -> {
                windowFields.show(windows);
                nodes.add(windowFields);
            }
            case QUIET -> {
                quietForm.show(QuietSketch.of(account), ahead());
                nodes.add(quietForm);
            }
            case OWN -> {
                OptionalLong out = stopOut();
                ofAccount.show(account.value().name(), OwnLines.of(account), out);
                ofContract.show(contract.symbol() + " on this account", OwnLines.of(account, contract.symbol()), out);
                ofStrategy.show(work.plans().draft().name(), OwnLines.of(work.plans().draft()), out);
                ofOrders.show(OwnOrders.of(account));
                showThumb();
                nodes.addAll(List.of(ofAccount, thumb, first, ofContract, second, ofStrategy, third, ofOrders));
            }
            case BOOK -> nodes.addAll(bookNodes());
        }
        nodes.add(said);
        // who types in a field keeps it: what stands there already is not put there again
        if (!right.getChildren().equals(nodes)) {
            right.getChildren().setAll(nodes);
        }
    }

    /** Something else is known of past days: what is said of them beside the picture follows. */
    private void known() {
        Entry entry = list.getSelectionModel().getSelectedItem();
        if (entry != null && entry.kind() == Kind.OWN) {
            showThumb();
        } else if (entry != null && entry.kind() == Kind.BOOK && !editing) {
            showRight();
        }
    }

    private String ahead() {
        QuietTimes quiet = account.value().own().quietTimes();
        if (quiet.times().isEmpty()) {
            return account.value().own().quietTimes().releases().isEmpty() && QuietSketch.of(account).on()
                    ? "No release passes the filters."
                    : "";
        }
        long now = day.opens();
        return quiet.times().stream().filter(one -> one.release().time() >= now).findFirst()
                .map(one -> "From " + Format.day(day.date()) + " on the next is " + one.release().title() + ", "
                        + TapeTime.in(contract.calendar().zone(), one.release().time()).toLocalDate() + " "
                        + Format.minute(one.release().time(), contract.calendar().zone()) + ".")
                .orElse("The calendar lies behind: its last release was on " + TapeTime.in(contract.calendar().zone(),
                        quiet.times().getLast().release().time()).toLocalDate() + ".");
    }

    /** What a full stop-out of the open strategy costs, where its stop is in ticks. */
    private OptionalLong stopOut() {
        StrategyDraft draft = work.plans().draft();
        return StrategySetup.plan(draft).flatMap(plan -> plan.terms(Side.LONG).stop())
                .filter(stop -> stop.distance() instanceof Distance.Ticks)
                .map(stop -> OptionalLong.of(draft.quantity() * (contract.money(
                        ((Distance.Ticks) stop.distance()).ticks() + contract.slippage(), 1)
                        + 2 * account.value().fee(contract.symbol()))))
                .orElse(OptionalLong.empty());
    }

    /** The rule of thumb: a tenth of the drawdown, what is left of it or the whole. */
    private void showThumb() {
        Optional<Long> whole = account.value().rulebook().floor().map(Rulebook.DrawdownFloor::allowance);
        if (whole.isEmpty()) {
            thumb.getChildren().clear();
            return;
        }
        Optional<Long> left = past.reading().flatMap(of -> of.rules().stream()
                .filter(s -> s.rule() instanceof Rulebook.DrawdownFloor && s.headroom().isPresent())
                .map(s -> s.headroom().getAsLong()).findFirst()).filter(money -> money > 0);
        List<Node> buttons = new ArrayList<>();
        left.ifPresent(money -> buttons.add(small("own-tenth-left", "10 % of what is left: " + tenth(money),
                "Day loss a tenth of the drawdown that is left, " + Format.money(money) + "; day profit twice that",
                () -> tenthOf(money))));
        buttons.add(small("own-tenth-whole", "of the whole: " + tenth(whole.get()),
                "Day loss a tenth of the whole drawdown, " + Format.money(whole.get()) + "; day profit twice that",
                () -> tenthOf(whole.get())));
        thumb.getChildren().setAll(Form.muted("Rule of thumb: a day may lose"),
                Form.row(buttons.toArray(Node[]::new)));
    }

    private static String tenth(long money) {
        return Format.money(money / 10 / Money.UNIT * Money.UNIT).replaceFirst("[.]00$", "");
    }

    private void tenthOf(long money) {
        long loss = money / 10 / Money.UNIT * Money.UNIT;
        Map<OwnLines.Kind, OwnLines.Limit> limits = new java.util.LinkedHashMap<>(OwnLines.of(account));
        limits.put(OwnLines.Kind.DAY_LOSS, new OwnLines.Limit(true, Money.text(loss), ""));
        limits.put(OwnLines.Kind.DAY_PROFIT, new OwnLines.Limit(true, Money.text(2 * loss), ""));
        try {
            take(OwnLines.with(account, limits));
        } catch (BadInput e) {
            said.setText(e.getMessage());
        }
    }

    private List<Node> bookNodes() {
        Documents.Read<Rulebook> book = book();
        boolean accounts = book.value().name().equals(account.value().rulebook().name());
        boolean mine = work.books().all().stream().anyMatch(one -> one.value().name().equals(book.value().name()));
        Label name = new Label(book.value().name());
        name.getStyleClass().add("fact");
        name.setId("limits-book");
        Button edit = small("book-edit", editing ? "Done" : mine ? "Edit" : "Edit a copy",
                mine ? "Changes this rulebook" : "Makes a rulebook of your own like this one", () -> edit(book, mine));
        Button give = small("book-give", "Give to " + account.value().name(),
                "The account is held to this rulebook from now on; asked once", () -> ask(book));
        Form.show(give, !accounts);
        List<Node> nodes = new ArrayList<>();
        if (!editing) {
            nodes.add(name);
        }
        nodes.add(Form.row(edit, give));
        nodes.add(asked);
        if (editing) {
            nodes.add(editor);
        } else {
            past.reading().filter(of -> of.account().rulebook().equals(book.value()))
                    .ifPresentOrElse(cards::show, () -> cards.show(book.value()));
            nodes.add(cards);
            past.prices().ifPresent(found -> {
                prices.show(found);
                nodes.add(prices);
            });
        }
        return nodes;
    }

    private void edit(Documents.Read<Rulebook> book, boolean mine) {
        if (editing) {
            editing = false;
            showRight();
        } else if (mine) {
            editing = true;
            editor.edit(BookSketch.of(book.document()));
            showRight();
        } else {
            newBook(BookSketch.of(book.document()).named(free(book.value().name() + " copy")));
        }
    }

    private String free(String wanted) {
        String name = wanted;
        for (int i = 2; taken(name); i++) {
            name = wanted + " " + i;
        }
        return name;
    }

    private boolean taken(String name) {
        return name.equals(account.value().rulebook().name())
                || books().stream().anyMatch(one -> one.value().name().equals(name));
    }

    private void newBook(BookSketch sketch) {
        try {
            work.books().keep(sketch.read());
            select(sketch.name());
            editing = true;
            editor.edit(sketch);
            showRight();
        } catch (BadInput e) {
            said.setText(e.getMessage());
        }
    }

    private void select(String book) {
        showing = true;
        List<Entry> entries = entries();
        list.getItems().setAll(entries);
        entries.stream().filter(e -> e.kind() == Kind.BOOK && e.title().equals(book)).findFirst()
                .ifPresent(list.getSelectionModel()::select);
        showing = false;
        showDay();
        judge();
    }

    /** A book of the person's own reads in another way: it is kept, and past days are held to it. */
    private void bookChanged(BookSketch sketch) {
        try {
            String before = book().value().name();
            if (!before.equals(sketch.name()) && taken(sketch.name())) {
                said.setText("There is a rulebook named " + sketch.name() + " already: choose another name.");
                return;
            }
            work.books().keep(sketch.read());
            if (!before.equals(sketch.name())) {
                work.books().remove(before);
            }
            said.setText("");
            select(sketch.name());
        } catch (BadInput e) {
            said.setText(e.getMessage());
        }
    }

    /** Changing the account's book is asked once, showing what it will be. */
    private void ask(Documents.Read<Rulebook> book) {
        Label words = new Label(account.value().name() + " is held to " + book.value().name() + " in place of "
                + account.value().rulebook().name() + ", from a new start of the replay on. This is written down.");
        words.setWrapText(true);
        words.setMinHeight(USE_PREF_SIZE);
        words.setId("book-give-asked");
        Button yes = small("book-give-yes", "Give it", "Changes the account's rulebook", () -> {
            try {
                take(OwnLines.with(account, book.document()));
                asked.getChildren().clear();
            } catch (BadInput e) {
                asked.getChildren().clear();
                said.setText(e.getMessage().replaceFirst("^.*?\\$\\.?", ""));
            }
        });
        asked.getChildren().setAll(words, Form.row(yes,
                small("book-give-no", "Not now", "Nothing is changed", () -> asked.getChildren().clear())));
        asked.getStyleClass().setAll("plan-question");
    }

    /** The account in another way: it is kept and traded with from now on. */
    private void take(Documents.Read<Account> next) {
        keep.accept(next);
    }

    // ------------------------------------------------------------------ past days

    /** The account with the selected book. */
    private Account judged() {
        try {
            return account.value().with(book().value());
        } catch (IllegalArgumentException e) {
            return account.value();
        }
    }

    private void judge() {
        StrategyDraft draft = work.plans().draft();
        past.judge(draft, account.value(), book().value(), draft.problems(contract, List.of()).isEmpty());
    }

    /** Selects a line of the list; empty: takes a copy of a rulebook to be edited. */
    public void open(String entry) {
        if (entry.isEmpty()) {
            Documents.Read<Rulebook> like = work.ready().getLast();
            newBook(BookSketch.of(like.document()).named(free(like.value().name() + " copy")));
        } else {
            list.getItems().stream().filter(e -> e.title().equals(entry)).findFirst()
                    .ifPresent(list.getSelectionModel()::select);
        }
    }

    /** Whether something is worked that is not shown yet. */
    public boolean isBusy() {
        return past.isBusy();
    }

    /** Where an edge of a window of the day lies on the screen. */
    public Optional<Point2D> edge(int window, boolean end) {
        return day.edge(window, end);
    }

    /** Two lines: what it is, and how it stands. */
    private static final class Cell extends ListCell<Entry> {
        @Override
        protected void updateItem(Entry item, boolean empty) {
            super.updateItem(item, empty);
            if (empty || item == null) {
                setGraphic(null);
                return;
            }
            Label title = new Label(item.title());
            title.getStyleClass().add("fact");
            Label words = new Label(item.words());
            words.getStyleClass().add("muted");
            setGraphic(new VBox(1, title, words));
            setAccessibleText(item.title() + ", " + item.words());
        }
    }
}

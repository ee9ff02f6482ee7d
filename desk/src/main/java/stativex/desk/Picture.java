package stativex.desk;

import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.CompletableFuture;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;
import javafx.scene.Scene;
import stativex.desk.look.Snapshots;
import stativex.engine.Command;
import stativex.engine.Mode;
import stativex.market.Side;

/** A picture of the real window, with the first strategy engaged from where the demo's story begins. */
final class Picture {
    private Picture() {}

    /** Runs the replay to the time asked for, shows it, writes the picture. */
    static CompletableFuture<Void> take(Scene scene, DeskWindow window, Workspace workspace, Options options) {
        return CompletableFuture.runAsync(() -> {
            try {
                workspace.toBeginning();
                workspace.replay().await();
                workspace.replay().command(new Command.SetMode(0, Mode.ENGAGED));
                workspace.replay().jumpTo(options.at(workspace.inputs().contract()).orElse(workspace.begin()));
                workspace.replay().await();
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
        }).thenCompose(ready -> switch (options.stage()) {
            case "run" -> CompletableFuture.completedFuture(null);
            case "ticket" -> ticket(window, workspace);
            case "rules" -> rulesStage(window, false);
            case "examples" -> rulesStage(window, true);
            case "exits" -> exitsStage(window);
            case "limits" -> limitsStage(window, "Trading day");
            case "odds" -> limitsStage(window, "Own limits");
            case "rulebook" -> limitsStage(window, "");
            case "trial" -> trialsStage(window, 1);
            case "compare" -> trialsStage(window, 2);
            case "search" -> trialsStage(window, 0);
            case "live" -> LivePicture.take(window, workspace, options, false);
            case "engage" -> LivePicture.take(window, workspace, options, true);
            case "contract" -> contract(window);
            default -> tapeStage(window, options);
        })
                .thenCompose(ready -> shown(scene, window, options.picture().orElseThrow()));
    }

    /** Opens the ticket for a short limit above the market. */
    private static CompletableFuture<Void> ticket(DeskWindow window, Workspace workspace) {
        CompletableFuture<Void> ready = new CompletableFuture<>();
        Platform.runLater(() -> {
            window.refresh();
            window.runStage().ticket(Side.SHORT, workspace.replay().latest().snapshot().lastPrice().orElseThrow() + 14);
            // fields take their size from their contents: a frame later
            Platform.runLater(() -> ready.complete(null));
        });
        return ready;
    }

    /** Goes to the demo's contract in the Tape stage. */
    private static CompletableFuture<Void> contract(DeskWindow window) {
        CompletableFuture<Void> ready = new CompletableFuture<>();
        Platform.runLater(() -> {
            window.stage(1);
            window.tapeStage().showContract();
            // fields take their size from their contents: a frame later
            Platform.runLater(() -> ready.complete(null));
        });
        return ready;
    }

    /** Goes to the Tape stage and waits until its bars are there. */
    private static CompletableFuture<Void> tapeStage(DeskWindow window, Options options) {
        CompletableFuture<Void> ready = new CompletableFuture<>();
        Platform.runLater(() -> {
            window.stage(1);
            window.tapeStage().select(options.tape().orElse(""));
            new AnimationTimer() {
                @Override
                public void handle(long now) {
                    if (!window.tapeStage().isBusy() && window.tapeStage().pane().chart().model().isPresent()) {
                        stop();
                        window.tapeStage().pane().press("own-time");
                        if (options.stage().equals("flow")) {
                            window.tapeStage().pane().press("flow");
                            window.tapeStage().pane().chart().viewport().zoom(10, 0);
                        } else {
                            window.tapeStage().pane().press("delta");
                        }
                        window.tapeStage().pane().chart().repaint();
                        ready.complete(null);
                    }
                }
            }.start();
        });
        return ready;
    }

    /** Goes to the Trials stage and tries so many strategies; several are shown side by side. */
    private static CompletableFuture<Void> trialsStage(DeskWindow window, int trials) {
        CompletableFuture<Void> ready = new CompletableFuture<>();
        Platform.runLater(() -> {
            window.stage(5);
            if (trials == 0) {
                window.trialsStage().newSearch();
                window.trialsStage().startSearch(5);
            }
            window.trialsStage().tryAll(trials);
            new AnimationTimer() {
                private int frames;

                @Override
                public void handle(long now) {
                    if (window.trialsStage().isBusy() || ++frames < 20) {
                        return;
                    }
                    if (frames == 20 && trials > 1) {
                        window.trialsStage().compareAll();
                    } else if (frames > 40) {
                        stop();
                        ready.complete(null);
                    }
                }
            }.start();
        });
        return ready;
    }

    /** Goes to the Exits stage and waits until the plan has been tried on a past trade. */
    private static CompletableFuture<Void> exitsStage(DeskWindow window) {
        CompletableFuture<Void> ready = new CompletableFuture<>();
        Platform.runLater(() -> {
            window.stage(3);
            new AnimationTimer() {
                private int frames;

                @Override
                public void handle(long now) {
                    if (!window.exitsStage().isBusy() && ++frames > 20) {
                        stop();
                        ready.complete(null);
                    }
                }
            }.start();
        });
        return ready;
    }

    /** Goes to the Limits stage and waits until past days are judged. @param entry of its list; empty: a copy of a ready book */
    private static CompletableFuture<Void> limitsStage(DeskWindow window, String entry) {
        CompletableFuture<Void> ready = new CompletableFuture<>();
        Platform.runLater(() -> {
            window.stage(4);
            window.limitsStage().open(entry);
            new AnimationTimer() {
                private int frames;

                @Override
                public void handle(long now) {
                    if (!window.limitsStage().isBusy() && ++frames > 20) {
                        stop();
                        ready.complete(null);
                    }
                }
            }.start();
        });
        return ready;
    }

    /** Goes to the Rules stage and asks about a bar at which most, but not all, held; or marks bars, and has rules found. */
    private static CompletableFuture<Void> rulesStage(DeskWindow window, boolean examples) {
        CompletableFuture<Void> ready = new CompletableFuture<>();
        Platform.runLater(() -> {
            window.stage(2);
            new AnimationTimer() {
                private int frames;

                @Override
                public void handle(long now) {
                    // a few frames more: fields take their size from their contents
                    if (window.rulesStage().isBusy() || ++frames < 20) {
                        return;
                    }
                    if (frames == 20 && examples) {
                        window.rulesStage().markWhereItHeld();
                    } else if (frames == 20) {
                        window.rulesStage().nearlyOne();
                    } else if (frames > 40) {
                        stop();
                        ready.complete(null);
                    }
                }
            }.start();
        });
        return ready;
    }

    private static CompletableFuture<Void> shown(Scene scene, DeskWindow window, Path file) {
        CompletableFuture<Void> written = new CompletableFuture<>();
        Platform.runLater(() -> {
            try {
                window.refresh();
                write(scene, file);
                written.complete(null);
            } catch (IOException | RuntimeException e) {
                written.completeExceptionally(e);
            }
        });
        return written;
    }

    /** Writes what a scene shows as a PNG file. */
    static void write(Scene scene, Path file) throws IOException {
        scene.getRoot().applyCss();
        scene.getRoot().layout();
        Snapshots.write(scene.snapshot(null), file);
    }
}

package zesty.signal.app.window.bench;

import java.util.List;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.DoctorSchedule;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.doctor.Finding;
import zesty.signal.core.text.Messages;

/** What the signal doctor says of the channel in focus: one finding in full, the others by name, and what does something about it. */
public final class DoctorLine extends VBox {
    private final Workspace workspace;
    private final boolean alsoWell;
    private final Label name = new Label();
    private final Label words = new Label();
    private final HBox others = new HBox(6);
    private final Button act = new Button();
    private List<Finding> shown = List.of();
    private String column = "";
    private int chosen;

    /** @param alsoWell whether it also says that nothing was found; else it is not there then */
    public DoctorLine(Workspace workspace, boolean alsoWell) {
        super(2);
        HelpPlace.mark(this, "doctor");
        this.workspace = workspace;
        this.alsoWell = alsoWell;
        setId("doctor");
        getStyleClass().add("doctor");
        name.getStyleClass().add("doctor-name");
        name.setMinWidth(USE_PREF_SIZE);
        words.setWrapText(true);
        words.getStyleClass().add("bench-line");
        words.setMinHeight(USE_PREF_SIZE);
        act.setId("doctor-act");
        act.getStyleClass().add("small-button");
        act.setMinWidth(USE_PREF_SIZE);
        act.managedProperty().bind(act.visibleProperty());
        act.setOnAction(event -> workspace.doctor().take(column, shown.get(chosen)));
        others.setAlignment(Pos.CENTER_LEFT);
        others.setMinWidth(USE_PREF_SIZE);
        managedProperty().bind(visibleProperty());
        HBox head = new HBox(10, name, others, act);
        head.setAlignment(Pos.CENTER_LEFT);
        head.managedProperty().bind(head.visibleProperty());
        head.visibleProperty().bind(name.textProperty().isNotEmpty());
        setMinHeight(USE_PREF_SIZE);
        getChildren().addAll(head, words);
    }

    public void show(String focused, Recipe recipe) {
        List<Finding> found = workspace.doctor().of(focused);
        boolean same = focused.equals(column)
                && found.stream()
                        .map(Finding::diagnosis)
                        .toList()
                        .equals(shown.stream().map(Finding::diagnosis).toList());
        chosen = same ? chosen : 0;
        column = focused;
        shown = found;
        setVisible(alsoWell || !found.isEmpty());
        pseudoClassStateChanged(PseudoClass.getPseudoClass("ill"), !found.isEmpty());
        if (found.isEmpty()) {
            name.setText("");
            words.setText(
                    workspace.doctor().seen(focused)
                            ? Messages.of("bench.the-signal-doctor-finds-nothing")
                            : Messages.of("bench.the-signal-doctor-is-looking-at-it"));
            others.getChildren().clear();
            act.setVisible(false);
            return;
        }
        Finding finding = found.get(chosen);
        name.setText(capital(finding.diagnosis().words()));
        words.setText(
                Messages.of("bench.likely", capital(finding.evidence()), finding.cause(), capital(finding.remedy())));
        act.setVisible(!finding.recipe().isEmpty() && !DoctorSchedule.taken(recipe, finding));
        act.setText(Messages.of("bench.put-in", finding.recipe()));
        Tip.on(act, Messages.of("bench.puts-this-before-the-other-steps-u"));
        if (!same || others.getChildren().size() != found.size() - 1) {
            fillOthers();
        }
    }

    private void fillOthers() {
        others.getChildren().clear();
        for (int i = 0; i < shown.size(); i++) {
            int index = i;
            if (i != chosen) {
                Button other = new Button(shown.get(i).diagnosis().words());
                other.getStyleClass().setAll("small-button");
                Tip.on(other, Messages.of("bench.what-is-said-of-this"));
                other.setOnAction(event -> {
                    chosen = index;
                    fillOthers();
                });
                others.getChildren().add(other);
            }
        }
    }

    private static String capital(String text) {
        return Character.toUpperCase(text.charAt(0)) + text.substring(1);
    }
}

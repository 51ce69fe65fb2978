package zesty.signal.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.junit.AnalyzeClasses;
import com.tngtech.archunit.junit.ArchTest;
import com.tngtech.archunit.lang.ArchRule;
import java.io.IOException;

/** The arrows of docs/ARCHITECTURE.md. */
@AnalyzeClasses(packages = "zesty.signal", importOptions = ImportOption.DoNotIncludeTests.class)
class ArrowsTest {
    @ArchTest
    static final ArchRule coreIsPure = noClasses()
            .that()
            .resideInAPackage("..core..")
            .should()
            .dependOnClassesThat(JavaClass.Predicates.resideInAnyPackage(
                            "zesty.signal.boards..",
                            "zesty.signal.takes..",
                            "zesty.signal.engine..",
                            "zesty.signal.app..",
                            "java.io..",
                            "java.nio.file..",
                            "java.util.concurrent..",
                            "java.sql..",
                            "javafx..",
                            "java.time..")
                    // The JSON parser throws it over texts in memory, too; it opens nothing.
                    .and(DescribedPredicate.not(JavaClass.Predicates.equivalentTo(IOException.class))));

    @ArchTest
    static final ArchRule coreHasNoThreadsAndNoClock = noClasses()
            .that()
            .resideInAPackage("..core..")
            .and()
            // It asks once how quick the processor is, which changes no answer by more than its last bit.
            .doNotHaveFullyQualifiedName("zesty.signal.core.clean.Fused")
            .should()
            .dependOnClassesThat()
            .haveFullyQualifiedName("java.lang.Thread")
            .orShould()
            .callMethod(System.class, "nanoTime")
            .orShould()
            .callMethod(System.class, "currentTimeMillis");

    @ArchTest
    static final ArchRule boardsKnowOnlyTheCore = noClasses()
            .that()
            .resideInAPackage("..boards..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("zesty.signal.takes..", "zesty.signal.engine..", "zesty.signal.app..", "javafx..");

    @ArchTest
    static final ArchRule takesKnowOnlyTheCore = noClasses()
            .that()
            .resideInAPackage("..takes..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("zesty.signal.boards..", "zesty.signal.engine..", "zesty.signal.app..", "javafx..");

    @ArchTest
    static final ArchRule exchangeKnowsOnlyTakesAndTheCore = noClasses()
            .that()
            .resideInAPackage("..exchange..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("zesty.signal.boards..", "zesty.signal.engine..", "zesty.signal.app..", "javafx..");

    @ArchTest
    static final ArchRule engineKnowsNoWindow = noClasses()
            .that()
            .resideInAPackage("..engine..")
            .should()
            .dependOnClassesThat()
            .resideInAnyPackage("zesty.signal.app..", "javafx..");

    @ArchTest
    static final ArchRule lanePaintersKnowNoToolkit = noClasses()
            .that()
            .haveSimpleNameEndingWith("Painter")
            .or()
            .haveSimpleName("LanePicture")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("javafx..");

    @ArchTest
    static final ArchRule corePackagesHaveNoCycles =
            slices().matching("zesty.signal.core.(*)..").should().beFreeOfCycles();

    @ArchTest
    static final ArchRule nothingKnowsTheWindowThatHoldsIt = noClasses()
            .that()
            .resideInAPackage("zesty.signal.app.window.*..")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("zesty.signal.app.window");

    /** A stop's bench knows what all benches share, and no other stop's. */
    @ArchTest
    static final ArchRule benchesKnowNoOtherBench =
            slices().matching("zesty.signal.app.window.bench.(*)..").should().notDependOnEachOther();

    @ArchTest
    static final ArchRule whatBenchesShareKnowsNoBench = noClasses()
            .that()
            .resideInAPackage("zesty.signal.app.window.bench")
            .should()
            .dependOnClassesThat()
            .resideInAPackage("zesty.signal.app.window.bench.*..");

    @ArchTest
    static final ArchRule appPackagesHaveNoCycles =
            slices().matching("zesty.signal.app.window.(*)..").should().beFreeOfCycles();
}

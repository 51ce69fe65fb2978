package zesty.signal.core.rig;

import java.util.List;
import java.util.stream.Collectors;
import zesty.signal.core.act.Watch;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.text.Messages;

/** Whether there is what a rule says it watches. */
public final class WatchCheck {
    private WatchCheck() {}

    /** @throws IllegalArgumentException when a reader, a setting or a number of that name is not there, naming those that are */
    public static void check(Watch watch) {
        if (!(watch instanceof Watch.Number number)) {
            return;
        }
        ReaderKind kind = kind(number.kind());
        List<String> known = kind.settings().stream().map(Setting::key).toList();
        for (String key : number.settings().keySet()) {
            if (!known.contains(key)) {
                throw new IllegalArgumentException(Messages.of(
                        "rig.no-setting-of-is-called-there-is", number.kind(), key, String.join(", ", known)));
            }
        }
        try {
            Settings.of(kind, number.settings());
        } catch (ReaderException e) {
            throw new IllegalArgumentException(e.getMessage(), e);
        }
        if (kind.fewestPorts() > 1) {
            throw new IllegalArgumentException(Messages.of("rig.reads-several-columns-a-rule", number.kind()));
        }
        boolean scalar = kind.scalars().stream().anyMatch(info -> info.key().equals(number.number()));
        if (!number.number().isEmpty() && !scalar && !kind.otherKeys().contains(number.number())) {
            throw new IllegalArgumentException(Messages.of(
                    "rig.has-no-number-it-has",
                    number.kind(),
                    number.number(),
                    kind.scalars().stream().map(ScalarInfo::key).collect(Collectors.joining(", "))));
        }
    }

    private static ReaderKind kind(String name) {
        try {
            return ReaderKinds.of(name);
        } catch (ReaderException e) {
            throw new IllegalArgumentException(
                    Messages.of(
                            "rig.no-reader-is-called-there-are",
                            name,
                            ReaderKinds.all().stream().map(ReaderKind::name).collect(Collectors.joining(", "))),
                    e);
        }
    }
}

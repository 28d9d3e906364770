package mintshelf.core.model.step;

import java.util.List;
import java.util.Optional;

/** A parameter of an instance (ISO 10303-21:2016, clause 7). */
public sealed interface StepValue {
    /** A string, decoded; with the place of its bytes between the quotes. */
    record Text(String text, long from, long to) implements StepValue {}

    record Real(double value) implements StepValue {}

    /** The name of another instance. */
    record Ref(long id) implements StepValue {}

    /** An enumeration, without its dots. */
    record Word(String word) implements StepValue {}

    /** A list, or the parameters of an instance. */
    record Many(List<StepValue> values) implements StepValue {
        public Many {
            values = List.copyOf(values);
        }
    }

    /** A value with its type, such as {@code LENGTH_MEASURE(25.4)}; each part of a complex instance is one. */
    record Typed(String type, List<StepValue> values) implements StepValue {
        public Typed {
            values = List.copyOf(values);
        }

        StepValue at(int i) {
            return i < values.size() ? values.get(i) : Nothing.NOTHING;
        }
    }

    /** Not given, or derived. */
    enum Nothing implements StepValue {
        NOTHING
    }

    /** The text of a string; empty for anything else. */
    default String text() {
        return this instanceof Text t ? t.text() : "";
    }

    /** The instance that is named; -1 for anything else. */
    default long ref() {
        return this instanceof Ref r ? r.id() : -1;
    }

    /** The number, also of a value with a type. */
    default Optional<Double> number() {
        if (this instanceof Real r) return Optional.of(r.value());
        return this instanceof Typed t ? t.at(0).number() : Optional.empty();
    }

    /** The instances that a list names. */
    default List<Long> refs() {
        return this instanceof Many many
                ? many.values().stream()
                        .map(StepValue::ref)
                        .filter(id -> id >= 0)
                        .toList()
                : List.of();
    }
}

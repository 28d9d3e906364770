package mintshelf.core.fact;

import mintshelf.core.base.Outcome;

/** Finds whom or what a fact names. */
public interface FactLookup {
    /** The login of who is called so, by name or login. */
    Outcome<String> person(String said);

    /** The number of the document that has it, as the shelf writes it. */
    Outcome<String> document(String said);

    /** Takes whatever is said: where a rule is kept, nobody is asked yet. */
    FactLookup AS_SAID = new FactLookup() {
        @Override
        public Outcome<String> person(String said) {
            return Outcome.granted(said);
        }

        @Override
        public Outcome<String> document(String said) {
            return Outcome.granted(said);
        }
    };
}

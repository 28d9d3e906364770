package mintshelf.core.fact;

/** The types that a fact may have. */
public enum FactType {
    TEXT,
    NUMBER,
    DATE,
    YES_NO,
    CHOICE,
    PERSON,
    DOCUMENT
}

package mintshelf.app.store.search;

import java.util.Locale;
import mintshelf.core.base.Texts;
import org.apache.lucene.analysis.Analyzer;
import org.apache.lucene.analysis.LowerCaseFilter;
import org.apache.lucene.analysis.Tokenizer;
import org.apache.lucene.analysis.miscellaneous.ASCIIFoldingFilter;
import org.apache.lucene.analysis.util.CharTokenizer;

/** The names of the index's fields, and how texts become terms. */
final class Fields {
    /** Changed whenever an index of before cannot be read any more. */
    static final String FORM = "3";

    static final String ITEM = "item";
    /** What the entry is: a document, or one of its versions. */
    static final String WHAT = "what";

    static final String DOCUMENT = "document";
    static final String VERSION = "version";
    /** Who may see it: with work in preparation, or released ones. */
    static final String VIEW = "view";

    static final String ALL = "all";
    static final String RELEASED = "released";

    static final String NUMBER = "number";
    static final String COMPACT = "compact";
    static final String FORMER = "former";
    static final String FORMER_COMPACT = "former-compact";
    static final String TITLE = "title";
    static final String FILE = "file";
    static final String WORDS = "words";
    static final String COMMENT = "comment";
    static final String TRAIT = "trait";
    static final String SHELF = "shelf";
    static final String FOLDER = "folder";
    static final String KIND = "kind";
    static final String AUTHOR = "author";
    static final String PAPER = "paper";
    static final String STAGE = "stage";
    static final String STAGE_CLASS = "class";
    static final String REVISION = "revision";
    static final String HOLDER = "holder";
    static final String NOBODY = "nobody";
    static final String HELD_AT = "held-at";
    static final String FORMAT = "format";
    static final String CHANGED = "changed";
    static final String RELEASED_AT = "released-at";
    static final String FILLED = "filled";
    static final String BY_NUMBER = "by-number";
    static final String BY_TITLE = "by-title";

    static final Analyzer WORDS_OF = new Analyzer() {
        @Override
        protected TokenStreamComponents createComponents(String field) {
            Tokenizer tokens = CharTokenizer.fromTokenCharPredicate(Character::isLetterOrDigit);
            return new TokenStreamComponents(tokens, folded(tokens));
        }
    };

    private Fields() {}

    private static org.apache.lucene.analysis.TokenStream folded(Tokenizer tokens) {
        return new ASCIIFoldingFilter(new LowerCaseFilter(tokens));
    }

    /** A word as a term: small letters, without accents. */
    static String term(String word) {
        char[] in = word.toLowerCase(Locale.ROOT).toCharArray();
        char[] out = new char[in.length * 4];
        int length = ASCIIFoldingFilter.foldToASCII(in, 0, out, 0, in.length);
        return new String(out, 0, length);
    }

    /** A number without what stands between its letters and digits: as people type it who do not remember the hyphens. */
    static String compact(String number) {
        return Texts.key(number).replaceAll("[^\\p{L}\\p{N}]+", "");
    }

    static String says(long fact) {
        return "says-" + fact;
    }

    static String amount(long fact) {
        return "amount-" + fact;
    }

    /** What is counted for a facet. */
    static String facet(String name) {
        return "@" + name;
    }
}

package mintshelf.app.page;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.core.convert.TypeDescriptor;
import org.springframework.core.convert.converter.ConditionalGenericConverter;

/** Lists of ids as forms and addresses send them, without holes: an empty one between two commas is none, not one of nothing. */
final class IdLists implements ConditionalGenericConverter {
    @Override
    public Set<ConvertiblePair> getConvertibleTypes() {
        return Set.of(
                new ConvertiblePair(String.class, Collection.class),
                new ConvertiblePair(String[].class, Collection.class));
    }

    @Override
    public boolean matches(TypeDescriptor source, TypeDescriptor target) {
        TypeDescriptor element = target.getElementTypeDescriptor();
        return element != null
                && element.getType() == Long.class
                && target.getType().isAssignableFrom(List.class);
    }

    /** @throws NumberFormatException for what is no number: answered as a bad request */
    @Override
    public Object convert(@Nullable Object source, TypeDescriptor from, TypeDescriptor to) {
        List<Long> ids = new ArrayList<>();
        String[] parts = source instanceof String[] several
                ? several
                : source == null ? new String[0] : new String[] {source.toString()};
        for (String part : parts) {
            for (String one : part.split(",", -1)) {
                if (!one.isBlank()) ids.add(Long.valueOf(one.strip()));
            }
        }
        return ids;
    }
}

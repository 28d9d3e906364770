package mintshelf.app;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.regex.Pattern;
import javax.sql.DataSource;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.config.BeanPostProcessor;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.jdbc.datasource.DelegatingDataSource;

/** Counts the statements of the thread that asks. */
@Configuration
class Counting {
    static final ThreadLocal<Integer> STATEMENTS = ThreadLocal.withInitial(() -> 0);
    /** Kept while somebody asks for what its own thread writes. */
    private static final ThreadLocal<@Nullable List<String>> WRITES = new ThreadLocal<>();

    static final AtomicInteger ALL = new AtomicInteger();

    private static final Pattern WRITE =
            Pattern.compile("\\s*(insert|update|delete|replace|truncate|alter|load)\\b.*", Pattern.DOTALL);

    /** The statements by which the act changes rows; what other threads write meanwhile is not its own. */
    static List<String> writesOf(Runnable act) {
        List<String> writes = new ArrayList<>();
        WRITES.set(writes);
        try {
            act.run();
        } finally {
            WRITES.remove();
        }
        return writes;
    }

    /** Every statement passes here, whoever wrote it. */
    @Bean
    static BeanPostProcessor counter() {
        return new BeanPostProcessor() {
            @Override
            public Object postProcessAfterInitialization(Object bean, String name) {
                return bean instanceof DataSource source ? new Counted(source) : bean;
            }
        };
    }

    private static final class Counted extends DelegatingDataSource {
        Counted(DataSource source) {
            super(source);
        }

        @Override
        public Connection getConnection() throws SQLException {
            Connection real = super.getConnection();
            return (Connection) Proxy.newProxyInstance(
                    Counting.class.getClassLoader(), new Class<?>[] {Connection.class}, (proxy, method, values) -> {
                        // Sessions are written when it suits them, and the server's own work is nobody's request.
                        if (method.getName().equals("prepareStatement")
                                && !((String) values[0])
                                        .toLowerCase(Locale.ROOT)
                                        .contains("session")
                                && !Thread.currentThread().getName().startsWith("scheduling")) {
                            Counting.STATEMENTS.set(Counting.STATEMENTS.get() + 1);
                            Counting.ALL.incrementAndGet();
                            String words = ((String) values[0]).toLowerCase(Locale.ROOT);
                            List<String> writes = WRITES.get();
                            if (writes != null && WRITE.matcher(words).matches()) writes.add(words);
                        }
                        try {
                            return method.invoke(real, values);
                        } catch (InvocationTargetException e) {
                            throw e.getCause();
                        }
                    });
        }
    }
}

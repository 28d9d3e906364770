package mintshelf.app;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.Locale;
import java.util.concurrent.atomic.AtomicInteger;
import javax.sql.DataSource;
import org.springframework.beans.factory.config.BeanPostProcessor;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.jdbc.datasource.DelegatingDataSource;

/** Counts the statements of the thread that asks. */
@Configuration
class Counting {
    static final ThreadLocal<Integer> STATEMENTS = ThreadLocal.withInitial(() -> 0);
    static final AtomicInteger ALL = new AtomicInteger();

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

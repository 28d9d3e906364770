package mintshelf.companion.machine;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Proxy;
import java.net.ProxySelector;
import java.net.SocketAddress;
import java.net.URI;
import java.util.List;
import java.util.Locale;

/**
 * Proxies as the environment names them: {@code https_proxy}, {@code http_proxy}, {@code all_proxy}, and {@code no_proxy} for what is reached without one.
 * What is on this machine is never asked for through a proxy.
 */
public final class Proxies extends ProxySelector {
    private final Machine machine;

    public Proxies(Machine machine) {
        this.machine = machine;
    }

    @Override
    public List<Proxy> select(URI uri) {
        String host = uri.getHost() == null ? "" : uri.getHost().toLowerCase(Locale.ROOT);
        if (isHere(host) || isWithout(host)) return List.of(Proxy.NO_PROXY);
        String said = said(uri.getScheme() + "_proxy");
        if (said.isEmpty()) said = said("all_proxy");
        return said.isEmpty() ? List.of(Proxy.NO_PROXY) : List.of(proxy(said));
    }

    private static boolean isHere(String host) {
        return host.equals("localhost") || host.startsWith("127.") || host.equals("[::1]");
    }

    private boolean isWithout(String host) {
        for (String one : said("no_proxy").toLowerCase(Locale.ROOT).split("[\\s,]+")) {
            String name = one.startsWith("*.") ? one.substring(1) : one;
            if (name.equals("*") || host.equals(name)) return true;
            String suffix = name.startsWith(".") ? name : "." + name;
            if (!name.isEmpty() && host.endsWith(suffix)) return true;
        }
        return false;
    }

    private String said(String name) {
        String small = machine.says(name);
        return small.isEmpty() ? machine.says(name.toUpperCase(Locale.ROOT)) : small;
    }

    /** "http://proxy.works:3128" or "proxy.works:3128"; what says neither is no proxy. */
    private static Proxy proxy(String said) {
        try {
            URI uri = URI.create(said.contains("://") ? said : "http://" + said);
            if (uri.getHost() == null) return Proxy.NO_PROXY;
            int port = uri.getPort() > 0 ? uri.getPort() : 80;
            return new Proxy(Proxy.Type.HTTP, InetSocketAddress.createUnresolved(uri.getHost(), port));
        } catch (IllegalArgumentException e) {
            return Proxy.NO_PROXY;
        }
    }

    @Override
    public void connectFailed(URI uri, SocketAddress address, IOException e) {
        // The request itself fails and says so.
    }
}

package mintshelf.companion.machine;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.freedesktop.dbus.DBusPath;
import org.freedesktop.dbus.Struct;
import org.freedesktop.dbus.annotations.DBusInterfaceName;
import org.freedesktop.dbus.annotations.Position;
import org.freedesktop.dbus.connections.impl.DBusConnection;
import org.freedesktop.dbus.exceptions.DBusException;
import org.freedesktop.dbus.exceptions.DBusExecutionException;
import org.freedesktop.dbus.interfaces.DBusInterface;
import org.freedesktop.dbus.interfaces.Properties;
import org.freedesktop.dbus.messages.DBusSignal;
import org.freedesktop.dbus.types.Variant;

/**
 * A word in the tray of a desktop that has one: how the desks stand. StatusNotifierItem of the freedesktop.org specifications, over the bus of the
 * session; where no tray is on it there is none, and nothing is lost by that.
 */
public final class DesktopTray implements AutoCloseable {
    private static final String ITEM = "org.kde.StatusNotifierItem";
    private static final String WATCHER = "org.kde.StatusNotifierWatcher";
    private static final int SIZE = 22;

    /** Where items of trays are told of. */
    @DBusInterfaceName(WATCHER)
    public interface Watcher extends DBusInterface {
        /** Tells of an item by the name of its program on the bus. */
        void RegisterStatusNotifierItem(String service);
    }

    /** An item as a tray asks for it. */
    @DBusInterfaceName(ITEM)
    public interface Item extends DBusInterface {
        /** It was clicked on. */
        void Activate(int x, int y);

        /** It was clicked on with another button. */
        void SecondaryActivate(int x, int y);

        /** Its menu is wanted. */
        void ContextMenu(int x, int y);

        /** Its word is another one. */
        class NewToolTip extends DBusSignal {
            public NewToolTip(String path) throws DBusException {
                super(path);
            }
        }

        /** Its title is another one. */
        class NewTitle extends DBusSignal {
            public NewTitle(String path) throws DBusException {
                super(path);
            }
        }

        /** Whether it is worth looking at is another one. */
        class NewStatus extends DBusSignal {
            public NewStatus(String path, String status) throws DBusException {
                super(path, status);
            }
        }
    }

    /** A picture: width, height, bytes of alpha, red, green, blue, the first line first. */
    public static final class Picture extends Struct {
        @Position(0)
        private final int width;

        @Position(1)
        private final int height;

        @Position(2)
        private final byte[] pixels;

        public Picture(int width, int height, byte[] pixels) {
            this.width = width;
            this.height = height;
            this.pixels = pixels.clone();
        }

        public int getWidth() {
            return width;
        }

        public int getHeight() {
            return height;
        }

        public byte[] getPixels() {
            return pixels.clone();
        }
    }

    /** What is said where somebody points at it. */
    public static final class Tip extends Struct {
        @Position(0)
        private final String icon;

        @Position(1)
        private final List<Picture> pictures;

        @Position(2)
        private final String title;

        @Position(3)
        private final String says;

        public Tip(String icon, List<Picture> pictures, String title, String says) {
            this.icon = icon;
            this.pictures = List.copyOf(pictures);
            this.title = title;
            this.says = says;
        }

        public String getIcon() {
            return icon;
        }

        public List<Picture> getPictures() {
            return pictures;
        }

        public String getTitle() {
            return title;
        }

        public String getSays() {
            return says;
        }
    }

    /** The item that is told of. */
    private static final class Exported implements Item, Properties {
        private final Runnable clicked;
        private volatile String word = "";
        private volatile boolean attention;

        Exported(Runnable clicked) {
            this.clicked = clicked;
        }

        @Override
        public String getObjectPath() {
            return "/StatusNotifierItem";
        }

        @Override
        public void Activate(int x, int y) {
            clicked.run();
        }

        @Override
        public void SecondaryActivate(int x, int y) {
            clicked.run();
        }

        @Override
        public void ContextMenu(int x, int y) {
            clicked.run();
        }

        private Map<String, Variant<?>> all() {
            Map<String, Variant<?>> all = new LinkedHashMap<>();
            all.put("Category", new Variant<>("ApplicationStatus"));
            all.put("Id", new Variant<>("mint-shelf"));
            all.put("Title", new Variant<>("Mint Shelf" + (word.isEmpty() ? "" : ": " + word)));
            all.put("Status", new Variant<>(attention ? "Active" : "Passive"));
            all.put("WindowId", new Variant<>(0));
            all.put("IconName", new Variant<>(""));
            all.put("IconPixmap", new Variant<>(List.of(sign()), "a(iiay)"));
            all.put("ToolTip", new Variant<>(new Tip("", List.of(), "Mint Shelf", word), "(sa(iiay)ss)"));
            all.put("ItemIsMenu", new Variant<>(false));
            all.put("Menu", new Variant<>(new DBusPath("/NoMenu")));
            return all;
        }

        @Override
        @SuppressWarnings({"unchecked", "TypeParameterUnusedInFormals"
        }) // so the bus declares it; who asks knows the type
        public <A> A Get(String of, String property) {
            Variant<?> value = all().get(property);
            if (value == null) throw new DBusExecutionException("There is no " + property + ".");
            return (A) value;
        }

        @Override
        public <A> void Set(String of, String property, A value) {
            throw new DBusExecutionException(property + " is not to be set.");
        }

        @Override
        public Map<String, Variant<?>> GetAll(String of) {
            return all();
        }
    }

    private final DBusConnection bus;
    private final Exported item;

    private DesktopTray(DBusConnection bus, Exported item) {
        this.bus = bus;
        this.item = item;
    }

    /**
     * The tray of a session's desktop; nothing where it has none.
     *
     * @param clicked what a click does, on a thread of the bus
     */
    public static Optional<DesktopTray> of(Machine machine, Runnable clicked) {
        Optional<DBusConnection> bus = DesktopNotices.bus(machine);
        if (bus.isEmpty()) return Optional.empty();
        try {
            Exported item = new Exported(clicked);
            bus.get().exportObject(item);
            bus.get()
                    .getRemoteObject(WATCHER, "/StatusNotifierWatcher", Watcher.class)
                    .RegisterStatusNotifierItem(bus.get().getUniqueName());
            return Optional.of(new DesktopTray(bus.get(), item));
        } catch (DBusException | DBusExecutionException e) {
            bus.get().disconnect();
            return Optional.empty();
        }
    }

    /**
     * Says how it stands.
     *
     * @param word in a few words; empty for nothing
     * @param attention whether it is worth looking at: desktops hide what is not
     */
    public void say(String word, boolean attention) {
        if (item.word.equals(word) && item.attention == attention) return;
        item.word = word;
        item.attention = attention;
        try {
            bus.sendMessage(new Item.NewToolTip(item.getObjectPath()));
            bus.sendMessage(new Item.NewTitle(item.getObjectPath()));
            bus.sendMessage(new Item.NewStatus(item.getObjectPath(), attention ? "Active" : "Passive"));
        } catch (DBusException e) {
            // The session ends; whoever looks sees the word that it had.
            return;
        }
    }

    /** The sign of the product: three upright spines on a line, the right one in mint. */
    private static Picture sign() {
        byte[] pixels = new byte[SIZE * SIZE * 4];
        fill(pixels, 3, 4, 4, 12, 0xFF8AA89C);
        fill(pixels, 9, 4, 4, 12, 0xFF8AA89C);
        fill(pixels, 15, 6, 4, 10, 0xFF35B88A);
        fill(pixels, 2, 18, 18, 2, 0xFF8AA89C);
        return new Picture(SIZE, SIZE, pixels);
    }

    private static void fill(byte[] pixels, int x, int y, int width, int height, int colour) {
        for (int row = y; row < y + height; row++)
            for (int column = x; column < x + width; column++)
                for (int part = 0; part < 4; part++)
                    pixels[(row * SIZE + column) * 4 + part] = (byte) (colour >>> (24 - 8 * part));
    }

    @Override
    public void close() {
        bus.disconnect();
    }
}

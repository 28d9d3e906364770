-- Counts by folder are read from it alone.
create index if not exists item_counted on item (shelf, folder, dropped_at);

-- The rows of the revision block that a stamp was written with; none before sheets carried rows.
alter table stamp add column if not exists block_rows json null;

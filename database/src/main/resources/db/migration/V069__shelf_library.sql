-- Whether a shelf serves the others: files that refer to a name find it there when their own shelf has none.
alter table shelf add column if not exists library tinyint(1) not null default 0;

-- A row of a run: what is to become of a document, seen at that version, and what became of it.
create table if not exists run_row (
  run bigint not null,
  position int not null,
  item bigint not null,
  expected varchar(64) character set ascii collate ascii_bin not null,
  became varchar(20) character set ascii collate ascii_bin null,
  number bigint not null default 0,
  primary key (run, position),
  constraint run_row_run foreign key (run) references run (id) on delete cascade,
  constraint run_row_item foreign key (item) references item (id)
);

-- A line of versions: the main one, or a trial.
create table if not exists line (
  id bigint not null auto_increment primary key,
  item bigint not null,
  main_mark smallint null check (main_mark = 1),
  head_version bigint null,
  constraint line_main unique (item, main_mark),
  constraint line_item_id unique (id, item),
  constraint line_item foreign key (item) references item (id)
);

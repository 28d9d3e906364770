-- A typed link beside references, with the version that it was last held against.
create table if not exists item_link (
  id bigint not null auto_increment primary key,
  item bigint not null,
  kind varchar(12) character set ascii collate ascii_bin not null,
  target bigint not null,
  captured bigint not null,
  found_by varchar(8) character set ascii collate ascii_bin not null,
  person bigint not null,
  at datetime(6) not null,
  constraint item_link_once unique (item, kind, target),
  key item_link_target (target, kind),
  constraint item_link_kind check (kind in ('SHOWS','MADE_FROM','DESCRIBES','EVIDENCE','STARTED_FROM','DERIVED_FROM')),
  constraint item_link_found_by check (found_by in ('NUMBER','HAND')),
  constraint item_link_not_itself check (item <> target),
  constraint item_link_item foreign key (item) references item (id),
  constraint item_link_captured foreign key (captured, target) references version (id, item),
  constraint item_link_person foreign key (person) references person (id)
);

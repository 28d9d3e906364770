-- A document is in one open bundle at most.
create table if not exists bundle_item (
  bundle bigint not null,
  item bigint not null,
  position int not null,
  open_mark smallint null check (open_mark = 1),
  primary key (bundle, item),
  constraint bundle_item_open unique (item, open_mark),
  constraint bundle_item_bundle foreign key (bundle) references bundle (id),
  constraint bundle_item_item foreign key (item) references item (id)
);

-- Change orders and their lines.

-- A change order: the paper is an item of its own; what it changes are its lines.
create table if not exists change_order (
  item bigint not null primary key,
  reason varchar(2000) not null,
  notice bigint null,
  carried_out_at datetime(6) null,
  ended_why varchar(500) null,
  constraint change_order_item foreign key (item) references item (id),
  constraint change_order_notice foreign key (notice) references item (id)
);

-- A document on an order; on one open order at most.
create table if not exists order_line (
  id bigint not null auto_increment primary key,
  change_order bigint not null,
  position int not null,
  item bigint not null,
  what varchar(12) character set ascii collate ascii_bin not null,
  reason varchar(500) not null,
  from_revision bigint null,
  to_revision bigint null,
  open_mark smallint null check (open_mark = 1),
  constraint order_line_item_once unique (change_order, item),
  constraint order_line_open unique (item, open_mark),
  key order_line_revision (to_revision),
  constraint order_line_what check (what in ('REVISE','FIRST')),
  constraint order_line_order foreign key (change_order) references change_order (item),
  constraint order_line_item foreign key (item) references item (id),
  constraint order_line_from foreign key (from_revision, item) references revision (id, item),
  constraint order_line_to foreign key (to_revision, item) references revision (id, item)
);

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

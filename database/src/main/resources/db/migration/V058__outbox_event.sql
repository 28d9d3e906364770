-- What happened and is to be told outside: written with the act, taken from here by whatever node.
create table if not exists outbox_event (
  id bigint not null auto_increment primary key,
  at datetime(6) not null,
  code varchar(40) character set ascii collate ascii_bin not null,
  round bigint null,
  item bigint null,
  by_person bigint null,
  says varchar(1000) not null,
  constraint outbox_event_round foreign key (round) references round (id),
  constraint outbox_event_item foreign key (item) references item (id),
  constraint outbox_event_by foreign key (by_person) references person (id)
);

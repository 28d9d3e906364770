-- The exact version of a document that a round decides on, and the digest that its sign-offs bind to.
create table if not exists round_item (
  round bigint not null,
  item bigint not null,
  version bigint not null,
  digest binary(32) not null,
  primary key (round, item),
  key round_item_version (version),
  constraint round_item_round foreign key (round) references round (id),
  constraint round_item_item foreign key (item) references item (id),
  constraint round_item_version foreign key (version) references version (id)
);

-- The ends that an anchor holds.
create table if not exists record_anchor_head (
  anchor bigint not null,
  stream bigint not null,
  seq int not null,
  hash binary(32) not null,
  primary key (anchor, stream),
  constraint record_anchor_head_anchor foreign key (anchor) references record_anchor (seq)
);

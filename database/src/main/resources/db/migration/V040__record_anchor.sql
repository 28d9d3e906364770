-- Chains the ends of all chains, so that a whole chain cannot be replaced unseen.
create table if not exists record_anchor (
  seq bigint not null primary key,
  at datetime(6) not null,
  prev_hash binary(32) not null,
  hash binary(32) not null
);

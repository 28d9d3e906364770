-- The next value of a counter, by the scope and the fixed text in which it counts.
create table if not exists number_counter (
  series bigint not null,
  scope_key varchar(250) character set utf8mb4 collate utf8mb4_nopad_bin not null,
  next_value bigint not null,
  primary key (series, scope_key),
  constraint number_counter_series foreign key (series) references number_series (id)
);

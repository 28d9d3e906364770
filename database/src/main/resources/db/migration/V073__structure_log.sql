-- Documents whose latest version or references changed: the graph in memory is kept up by it. Rows go after a while.
create table if not exists structure_log (
  id bigint not null auto_increment primary key,
  item bigint not null,
  at datetime(6) not null default current_timestamp(6),
  key structure_log_at (at)
);

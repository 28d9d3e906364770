-- What an act over a set is at or did: progress while it works, under a lease, and a report with an address afterwards.
create table if not exists run (
  id bigint not null auto_increment primary key,
  person bigint not null,
  act_key char(36) character set ascii collate ascii_bin not null,
  what varchar(20) character set ascii collate ascii_bin not null,
  says varchar(500) not null,
  wish text null,
  state varchar(12) character set ascii collate ascii_bin not null,
  done int not null,
  total int not null,
  begun_at datetime(6) not null,
  ended_at datetime(6) null,
  next_at datetime(6) not null,
  lease_until datetime(6) null,
  tries int not null default 0,
  constraint run_act unique (person, act_key),
  key run_of_person (person, begun_at, id),
  key run_to_do (state, next_at),
  key run_old (ended_at),
  constraint run_person foreign key (person) references person (id)
);

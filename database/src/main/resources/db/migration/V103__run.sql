-- What an act over a set did, row by row: a report with an address, which is progress while it works.
create table if not exists run (
  id bigint not null auto_increment primary key,
  person bigint not null,
  act_key char(36) character set ascii collate ascii_bin not null,
  what varchar(20) character set ascii collate ascii_bin not null,
  says varchar(500) not null,
  report mediumtext not null,
  state varchar(12) character set ascii collate ascii_bin not null,
  done int not null,
  total int not null,
  begun_at datetime(6) not null,
  ended_at datetime(6) null,
  constraint run_act unique (person, act_key),
  key run_of_person (person, begun_at, id),
  constraint run_person foreign key (person) references person (id)
);

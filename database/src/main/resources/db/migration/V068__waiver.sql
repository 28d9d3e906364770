-- A finding that is let pass in words, for one revision.
create table if not exists waiver (
  id bigint not null auto_increment primary key,
  revision bigint not null,
  finding varchar(500) not null,
  words varchar(500) not null,
  person bigint not null,
  at datetime(6) not null,
  ended_at datetime(6) null,
  key waiver_revision (revision),
  constraint waiver_of_revision foreign key (revision) references revision (id),
  constraint waiver_person foreign key (person) references person (id)
);

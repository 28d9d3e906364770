-- What a person chose for their own pages.
create table if not exists person_setting (
  person bigint not null,
  name varchar(60) character set ascii collate ascii_bin not null,
  value varchar(2000) not null,
  primary key (person, name),
  constraint person_setting_person foreign key (person) references person (id)
);

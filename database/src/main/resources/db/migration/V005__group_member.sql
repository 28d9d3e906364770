-- Who belongs to which group.
create table if not exists group_member (
  person_group bigint not null,
  person bigint not null,
  primary key (person_group, person),
  key group_member_person (person),
  constraint group_member_group foreign key (person_group) references person_group (id),
  constraint group_member_person foreign key (person) references person (id)
);

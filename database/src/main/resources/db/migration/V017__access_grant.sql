-- (person or group) x (shelf, folder, kind; empty = any) x role. Rights add up, there is no deny.
create table if not exists access_grant (
  id bigint not null auto_increment primary key,
  person bigint null,
  person_group bigint null,
  role bigint not null,
  shelf bigint null,
  folder bigint null,
  kind bigint null,
  constraint access_grant_one_subject check ((person is null) <> (person_group is null)),
  constraint access_grant_person foreign key (person) references person (id),
  constraint access_grant_group foreign key (person_group) references person_group (id),
  constraint access_grant_role foreign key (role) references role (id),
  constraint access_grant_shelf foreign key (shelf) references shelf (id),
  constraint access_grant_folder foreign key (folder) references folder (id),
  constraint access_grant_kind foreign key (kind) references kind (id)
);

-- The rights of a role.
create table if not exists role_right (
  role bigint not null,
  access_right varchar(40) character set ascii collate ascii_bin not null,
  primary key (role, access_right),
  constraint role_right_role foreign key (role) references role (id)
);

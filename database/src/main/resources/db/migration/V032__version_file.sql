-- The content of a version, by role.
create table if not exists version_file (
  version bigint not null,
  role varchar(10) character set ascii collate ascii_bin not null,
  content bigint not null,
  file_name varchar(200) not null,
  primary key (version, role),
  key version_file_content (content),
  constraint version_file_role check (role in ('MAIN','NEUTRAL')),
  constraint version_file_version foreign key (version) references version (id),
  constraint version_file_content foreign key (content) references content (id)
);

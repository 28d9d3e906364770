-- Bytes on their way in; resumed by its token.
create table if not exists upload (
  id bigint not null auto_increment primary key,
  token char(36) character set ascii collate ascii_bin not null,
  person bigint not null,
  content bigint null,
  file_name varchar(300) not null,
  size bigint not null,
  received bigint not null default 0,
  sha256 binary(32) null,
  content_kind varchar(20) character set ascii collate ascii_bin not null default '',
  state varchar(10) character set ascii collate ascii_bin not null,
  created_at datetime(6) not null,
  lease_until datetime(6) not null,
  constraint upload_token unique (token),
  constraint upload_state check (state in ('RECEIVING','COMPLETE','USED','DROPPED')),
  key upload_lease (state, lease_until),
  constraint upload_person foreign key (person) references person (id),
  constraint upload_content foreign key (content) references content (id)
);

-- What a run makes of a released version: once for each format and recipe.
create table if not exists output (
  version bigint not null,
  format varchar(10) character set ascii collate ascii_bin not null,
  recipe varchar(20) character set ascii collate ascii_bin not null,
  state varchar(10) character set ascii collate ascii_bin not null,
  content bigint null,
  says varchar(300) not null default '',
  tries int not null default 0,
  asked_at datetime(6) not null,
  made_at datetime(6) null,
  lease_until datetime(6) null,
  primary key (version, format, recipe),
  key output_state (state, lease_until),
  constraint output_state_known check (state in ('WAITING','MADE','FAILED')),
  constraint output_made check ((state = 'MADE') = (content is not null)),
  constraint output_version foreign key (version) references version (id),
  constraint output_content foreign key (content) references content (id)
);

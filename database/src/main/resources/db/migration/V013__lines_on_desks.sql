-- On which line of a document a desk works: its main one, or that of a trial. What lies there is a version of it, or the one at which it begins.

alter table desk_file add column if not exists line bigint null;

update desk_file f join version v on v.id = f.version set f.line = v.line where f.line is null;

alter table desk_file modify column line bigint not null;

alter table desk_file add foreign key if not exists desk_file_line (line, item) references line (id, item);

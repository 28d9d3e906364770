-- Papers of changes and drawings of several layouts are read for their words anew.
delete from content_text where content in (
  select f.content from version_file f join version v on v.id = f.version join item i on i.id = v.item join kind k on k.id = i.kind
  where k.code in ('change-order') or k.aspect = 'DRAWING');

using Fid.Tool;

return args switch
{
    ["compute", var name] => ComputeVerb.One(name),
    ["compute", var name, "--lines"] => ComputeVerb.Lines(name),
    ["compute", "--lines", var name] => ComputeVerb.Lines(name),
    _ => ComputeVerb.Usage(),
};

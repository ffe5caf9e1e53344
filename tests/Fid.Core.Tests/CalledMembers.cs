using System.Reflection;
using System.Reflection.Metadata;
using System.Reflection.PortableExecutable;

namespace Fid.Core.Tests;

/// <summary>The members of other assemblies that an assembly's code refers to, as "Namespace.Type::member".</summary>
internal static class CalledMembers
{
    public static IReadOnlyList<string> Of(Assembly assembly)
    {
        using var file = new PEReader(File.OpenRead(assembly.Location));
        var metadata = file.GetMetadataReader();
        return
        [
            .. metadata
                .MemberReferences.Select(metadata.GetMemberReference)
                .Where(m => m.Parent.Kind == HandleKind.TypeReference)
                .Select(m => (Member: m, Type: metadata.GetTypeReference((TypeReferenceHandle)m.Parent)))
                .Select(m => $"{metadata.GetString(m.Type.Namespace)}.{metadata.GetString(m.Type.Name)}::{metadata.GetString(m.Member.Name)}"),
        ];
    }
}

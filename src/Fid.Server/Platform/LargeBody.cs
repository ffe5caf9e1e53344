using Microsoft.AspNetCore.Http.Metadata;

namespace Fid.Server.Platform;

/// <summary>Lets an endpoint take a file as its body.</summary>
/// <param name="largest">The most bytes a file may have.</param>
internal sealed class LargeBody(long largest) : IRequestSizeLimitMetadata
{
    private const long More = 1_000_000;

    // A little more than a file may have, so that the refusal is ours and names the limit.
    public long? MaxRequestBodySize => largest + More;
}

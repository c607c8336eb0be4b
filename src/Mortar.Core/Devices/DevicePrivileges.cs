using Mortar.Core.Access;

namespace Mortar.Core.Devices;

/// <summary>What a program may do with a calendar, as its step says (RFC 3744, 3, and RFC 4791, 6.1).</summary>
/// <param name="Read">To read what is in it.</param>
/// <param name="Add">To put events in, and to take out those one put in (DAV:bind, DAV:unbind).</param>
/// <param name="Write">To change any event (DAV:write).</param>
/// <param name="Look">To give it a look of one's own (DAV:write-properties).</param>
public sealed record DevicePrivileges(bool Read, bool Add, bool Write, bool Look)
{
    /// <summary>Those of a device on a calendar.</summary>
    /// <param name="device">The device.</param>
    /// <param name="role">Its owner's step.</param>
    /// <param name="fromWeb">Whether what is in the calendar comes from the web.</param>
    public static DevicePrivileges On(Device device, Role role, bool fromWeb) =>
        new(
            Read: true,
            Add: device.Writes && AccessRules.WhyNotAdd(role, fromWeb) is null,
            Write: device.Writes && role >= Role.Edit && AccessRules.WhyNotAdd(role, fromWeb) is null,
            Look: device.Writes
        );
}
